// Scripts without exports: they put themselves into the window.
declare module 'tracking/build/tracking-min'
declare module 'tracking/build/data/face-min'
