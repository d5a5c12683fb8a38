"""Active filters by scipy.signal: complex response and group delay, and the same chain as biquads at 48 kHz.

Butterworth and Bessel filters are scipy's own designs; Linkwitz-Riley filters are their squares; shelves, parametric band and
transform are the polynomials of the Audio EQ Cookbook, written down here a second time. Writes filters.csv and biquads.csv.
"""

import csv
import math

import numpy as np
from scipy import signal

FREQUENCIES = np.geomspace(5.0, 500.0, 21)


def analog(b, a, f0=1.0):
    """Response and group delay of polynomials in s = j f/f0."""
    s = 1j * FREQUENCIES / f0
    b, a = np.atleast_1d(b), np.atleast_1d(a)
    h = np.polyval(b, s) / np.polyval(a, s)
    slope = np.polyval(np.polyder(b), s) / np.polyval(b, s) - np.polyval(np.polyder(a), s) / np.polyval(a, s)
    # d arg H/d omega = Im(j H'/H)/w0
    return h, -(1j * slope).imag / (2 * math.pi * f0)


def zpk(z, p, k, f0):
    """The same from zeros and poles, which keeps the digits of high orders."""
    s = 1j * FREQUENCIES / f0
    h = np.full(s.shape, k, dtype=complex)
    slope = np.zeros(s.shape, dtype=complex)
    for zero in z:
        h *= s - zero
        slope += 1 / (s - zero)
    for pole in p:
        h /= s - pole
        slope -= 1 / (s - pole)
    return h, -(1j * slope).imag / (2 * math.pi * f0)


def passes():
    for side, btype in [("low", "lowpass"), ("high", "highpass")]:
        for order in range(1, 9):
            f0 = 17.0 + 9.0 * order
            yield f"butterworth {side} {order} {f0:g}", zpk(*signal.butter(order, 1.0, btype, analog=True, output="zpk"), f0)
            for name, norm in [("bessel", "mag"), ("bessel-phase", "phase")]:
                # A high-pass is s -> 1/s of the low-pass, which scipy's norm keeps.
                z, p, k = signal.bessel(order, 1.0, "lowpass", analog=True, output="zpk", norm=norm)
                if btype == "highpass":
                    z, p, k = signal.lp2hp_zpk(z, p, k)
                yield f"{name} {side} {order} {f0:g}", zpk(z, p, k, f0)
            if order % 2 == 0:
                z, p, k = signal.butter(order // 2, 1.0, btype, analog=True, output="zpk")
                h, delay = zpk(z, p, k, f0)
                yield f"linkwitz-riley {side} {order} {f0:g}", (h * h, 2 * delay)


def shelf(side, gain, kind, value=None):
    a = 10 ** (gain / 40)
    if kind == "first":
        return ([1, a], [1, 1 / a]) if side == "low" else ([a * a, a], [1, a])
    slope = 1 / value if kind == "q" else math.sqrt((a + 1 / a) * (1 / value - 1) + 2)
    m = math.sqrt(a) * slope
    one, other = [1, m, a], [a, m, 1]
    b, d = (one, other) if side == "low" else (other, one)
    return [a * x for x in b], d


def parametric(gain, kind, value):
    a = 10 ** (gain / 40)
    q = value if kind == "q" else 1 / (2 * math.sinh(value * math.log(2) / 2))
    return [1, a / q, 1], [1, 1 / (a * q), 1]


def equalisers():
    for side in ["low", "high"]:
        for gain in [-9.0, 3.0, 12.0]:
            for kind, value in [("first", None), ("q", 0.7), ("q", 1.4), ("s", 0.5), ("s", 1.0)]:
                f0 = 44.0
                name = f"shelf {side} {f0:g} {gain:g} {kind}" + ("" if value is None else f" {value:g}")
                yield name, analog(*shelf(side, gain, kind, value), f0)
    for gain in [-12.0, 5.0]:
        for kind, value in [("q", 0.5), ("q", 6.0), ("octaves", 0.33), ("octaves", 2.0)]:
            yield f"parametric 36 {gain:g} {kind} {value:g}", analog(*parametric(gain, kind, value), 36.0)
    for f0, q0, fp, qp in [(48, 0.9, 24, 0.5), (70, 0.55, 35, 0.707), (40, 1.2, 55, 0.6)]:
        yield f"transform {f0} {q0} {fp} {qp}", analog([1, f0 / q0, f0**2], [1, fp / qp, fp**2])
    yield "all-pass 60", analog([-1, 1], [1, 1], 60.0)
    yield "all-pass 60 0.8", analog([1, -1 / 0.8, 1], [1, 1 / 0.8, 1], 60.0)


def bilinear(b, a, f0, rate):
    """A second-order section by scipy's bilinear transform, pre-warped at f0."""
    warped = 2 * rate * math.tan(math.pi * f0 / rate)
    order = max(len(b), len(a)) - 1
    scaled = [[c / warped ** (len(p) - 1 - k) for k, c in enumerate(p)] for p in (b, a)]
    assert order in (1, 2)
    return signal.bilinear(*scaled, fs=rate)


def pole_sections(z, p, k):
    """Analogue second-order sections of an all-pole filter and its s -> 1/s."""
    high = len(z) > 0
    left = sorted((pole for pole in p if pole.imag >= -1e-12), key=lambda pole: pole.imag)
    for pole in left:
        if abs(pole.imag) < 1e-12:
            yield ([1, 0] if high else [-pole.real]), [1, -pole.real]
        else:
            a = [1, -2 * pole.real, abs(pole) ** 2]
            yield ([1, 0, 0] if high else [abs(pole) ** 2]), a


def padded(b, a):
    n = max(len(b), len(a))
    return [0] * (n - len(b)) + list(b), [0] * (n - len(a)) + list(a)


def chain(rate):
    sections = [(b, a, 18.0) for b, a in pole_sections(*signal.butter(4, 1.0, "highpass", analog=True, output="zpk"))]
    sections += 2 * [(b, a, 80.0) for b, a in pole_sections(*signal.butter(2, 1.0, analog=True, output="zpk"))]
    sections += [(b, a, 300.0) for b, a in pole_sections(*signal.bessel(3, 1.0, analog=True, output="zpk", norm="mag"))]
    sections.append((*parametric(-5.0, "q", 2.0), 41.0))
    sections.append((*shelf("low", 4.0, "s", 0.8), 30.0))
    sections.append((*shelf("high", -3.0, "first"), 120.0))
    sections.append(([1, 2 / 0.9, 4], [1, 1 / 0.6, 1], 24.0))
    sections.append(([1, -1 / 0.7, 1], [1, 1 / 0.7, 1], 60.0))
    z = np.exp(2j * math.pi * FREQUENCIES / rate)
    h = np.full(z.shape, -(10 ** (-2.0 / 20)), dtype=complex)
    for b, a, f0 in sections:
        bz, az = bilinear(*padded(b, a), f0, rate)
        h *= np.polyval(bz, z) / np.polyval(az, z)
    return h


def main():
    with open("filters.csv", "w", newline="") as file:
        out = csv.writer(file, lineterminator="\n")
        out.writerow(["filter", "frequency_hz", "real", "imaginary", "group_delay_s"])
        for name, (h, delay) in [*passes(), *equalisers()]:
            for f, value, d in zip(FREQUENCIES, h, delay):
                out.writerow([name, repr(float(f)), repr(float(value.real)), repr(float(value.imag)), repr(float(d))])
    with open("biquads.csv", "w", newline="") as file:
        out = csv.writer(file, lineterminator="\n")
        out.writerow(["frequency_hz", "real", "imaginary"])
        for f, value in zip(FREQUENCIES, chain(48000.0)):
            out.writerow([repr(float(f)), repr(float(value.real)), repr(float(value.imag))])


if __name__ == "__main__":
    main()
