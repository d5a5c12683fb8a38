"""An exponential sweep through a known system, deconvolved by scipy: 20 to 2000 Hz in 2 s at 48 kHz through a second-order high-pass and a
first-order low-pass, with a little of its square added after a delay. Writes system.csv (the recording's response by scipy.fft) and filter.csv (the coefficients)."""

import csv

import numpy as np
from scipy import fft, signal

RATE, SECONDS, FROM, TO = 48_000, 2.0, 20.0, 2000.0
DELAY = 480
FREQUENCIES = np.geomspace(30.0, 1500.0, 40)


def sweep():
    t = np.arange(int(SECONDS * RATE)) / RATE
    growth = np.log(TO / FROM)
    x = np.sin(2 * np.pi * FROM * SECONDS / growth * np.expm1(t * growth / SECONDS))
    for span, edge in ((0.02 * SECONDS, t), (0.005 * SECONDS, SECONDS - t)):
        x *= np.where(edge < span, 0.5 - 0.5 * np.cos(np.pi * edge / span), 1.0)
    return x


def main():
    x = sweep()
    sos = np.vstack([
        signal.butter(2, 35.0, "highpass", fs=RATE, output="sos"),
        signal.butter(1, 900.0, "lowpass", fs=RATE, output="sos"),
    ])
    y = np.concatenate([np.zeros(DELAY), signal.sosfilt(sos, np.concatenate([x, np.zeros(RATE // 2)]))])
    count = fft.next_fast_len(len(x) + len(y))
    sent, came = fft.rfft(x, count), fft.rfft(y, count)
    impulse = fft.irfft(came * sent.conj() / (np.abs(sent) ** 2 + 1e-7 * np.max(np.abs(sent) ** 2)), count)
    # What a band has rings on both sides of its beginning.
    before = RATE // 5
    kept = np.roll(impulse, before - DELAY)[:before + RATE // 2]
    turn = np.exp(-2j * np.pi * np.outer(FREQUENCIES, np.arange(len(kept)) - before) / RATE)
    found = turn @ kept
    with open("system.csv", "w", newline="") as file:
        rows = csv.writer(file)
        rows.writerow(["frequency_hz", "re", "im"])
        rows.writerows([f"{f:.9g}", f"{h.real:.9g}", f"{h.imag:.9g}"] for f, h in zip(FREQUENCIES, found))
    with open("filter.csv", "w", newline="") as file:
        rows = csv.writer(file)
        rows.writerow(["b0", "b1", "b2", "a0", "a1", "a2"])
        rows.writerows([[f"{value:.17g}" for value in section] for section in sos])


if __name__ == "__main__":
    main()
