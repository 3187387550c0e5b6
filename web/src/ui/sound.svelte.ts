const KEY = 'kelbrast.sound';

/** Short tones for reminders: off unless the person wants them. */
class Sound {
  on = $state(localStorage.getItem(KEY) === 'on');
  private context: AudioContext | null = null;

  toggle() {
    this.on = !this.on;
    localStorage.setItem(KEY, this.on ? 'on' : 'off');
    if (this.on) this.play(660);
  }

  play(hertz: number, seconds = 0.18) {
    if (!this.on) return;
    this.context ??= new AudioContext();
    const tone = this.context.createOscillator();
    const loud = this.context.createGain();
    tone.frequency.value = hertz;
    loud.gain.setValueAtTime(0.25, this.context.currentTime);
    loud.gain.exponentialRampToValueAtTime(0.001, this.context.currentTime + seconds);
    tone.connect(loud).connect(this.context.destination);
    tone.start();
    tone.stop(this.context.currentTime + seconds);
  }
}

export const sound = new Sound();
