import {
  AudioSampleSink,
  AudioSampleSource,
  getFirstEncodableAudioCodec,
  type AudioSample,
  type Input,
  type InputAudioTrack,
  type Output,
} from 'mediabunny'
import type { Stretch } from '../../core/model'
import { LEVEL_SECONDS } from '../../core/speech'
import { CannotCut } from './clipFile'

/** Bits a second of a clip's sound. */
export const SOUND_BITS = 96_000
/** Samples a second, where an encoder takes none of the sound's own rate. */
const RATE = 48_000

/** What is heard of a film; null where nothing is. Throws `CannotCut` what this browser cannot play. */
export async function soundOf(input: Input): Promise<InputAudioTrack | null> {
  const track = await input.getPrimaryAudioTrack()
  if (track && !(await track.canDecode()))
    throw new CannotCut(
      `This browser cannot play sound packed as ${track.codec ?? 'this one is'}. Save the film as MP4 or WebM with AAC or Opus, and choose that.`,
    )
  return track
}

/** Where the sound of a film is written to in a clip. Throws `CannotCut` where this browser writes none. */
export async function newSound(
  { numberOfChannels, sampleRate }: InputAudioTrack,
  output: Output,
): Promise<AudioSampleSource> {
  const codecs = output.format.getSupportedAudioCodecs()
  const first = (rate: number) => getFirstEncodableAudioCodec(codecs, { numberOfChannels, sampleRate: rate })
  const own = await first(sampleRate)
  const codec = own ?? (await first(RATE))
  if (!codec) throw new CannotCut('This browser cannot write the sound of films. Use another one for clips.')
  const source = new AudioSampleSource({
    codec,
    bitrate: SOUND_BITS,
    ...(own ? {} : { transform: { sampleRate: RATE } }),
  })
  output.addAudioTrack(source)
  return source
}

/** What is heard in a stretch of a film, to the sample. */
async function* heard(
  sink: AudioSampleSink,
  { from, to }: Stretch,
): AsyncGenerator<{ sample: AudioSample; moment: number }, void> {
  for await (const whole of sink.samples(from, to)) {
    const { sampleRate, timestamp, numberOfFrames } = whole
    const at = (moment: number): number =>
      Math.min(numberOfFrames, Math.max(0, Math.round((moment - timestamp) * sampleRate)))
    const [first, last] = [at(from), at(to)]
    if (last > first) {
      const sample = whole.trim(first, last)
      yield { sample, moment: timestamp + first / sampleRate }
      sample.close()
    }
    whole.close()
  }
}

/** Writes what is heard in some stretches of a film to a clip, one after the other, until it is to stop. */
export async function copySound(
  track: InputAudioTrack,
  source: AudioSampleSource,
  shown: readonly Stretch[],
  stop: AbortSignal,
): Promise<void> {
  const sink = new AudioSampleSink(track)
  let gone = 0
  for (const stretch of shown) {
    for await (const { sample, moment } of heard(sink, stretch)) {
      sample.setTimestamp(Math.max(0, gone + moment - stretch.from))
      await source.add(sample)
      if (stop.aborted) return
    }
    gone += stretch.to - stretch.from
  }
}

/** How loud a stretch of a film is, every 20 ms (`LEVEL_SECONDS`): the root mean square of all channels; null where it has no sound. */
export async function loudnessOf(input: Input, from: number, to: number): Promise<number[] | null> {
  const track = await soundOf(input)
  if (!track) return null
  const count = Math.ceil((to - from) / LEVEL_SECONDS)
  const [squares, samples] = [new Float64Array(count), new Float64Array(count)]
  for await (const { sample, moment } of heard(new AudioSampleSink(track), { from, to }))
    for (let planeIndex = 0; planeIndex < sample.numberOfChannels; planeIndex++) {
      const options = { planeIndex, format: 'f32-planar' as const }
      const values = new Float32Array(sample.allocationSize(options) / 4)
      sample.copyTo(values, options)
      values.forEach((value, i) => {
        const level = Math.floor((moment - from + i / sample.sampleRate) / LEVEL_SECONDS)
        if (level < 0 || level >= count) return
        squares[level] = (squares[level] ?? 0) + value * value
        samples[level] = (samples[level] ?? 0) + 1
      })
    }
  return Array.from(squares, (sum, i) => Math.sqrt(sum / Math.max(1, samples[i] ?? 0)))
}
