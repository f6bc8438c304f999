/**
 * Natural logarithm of the modified Bessel function I1(z), z > 0. Polynomials of Abramowitz and Stegun, Handbook of
 * Mathematical Functions, 9.8.3 and 9.8.4; relative error under 1e-6.
 */
export function logBesselI1(z: number): number {
  if (z < 3.75) {
    const t = (z / 3.75) ** 2;
    const sum =
      0.5 +
      t * (0.87890594 + t * (0.51498869 + t * (0.15084934 + t * (0.02658733 + t * (0.00301532 + t * 0.00032411)))));
    return Math.log(z * sum);
  }
  const t = 3.75 / z;
  const tail = 0.02282967 + t * (-0.02895312 + t * (0.01787654 - t * 0.00420059));
  const sum = 0.39894228 + t * (-0.03988024 + t * (-0.00362018 + t * (0.00163801 + t * (-0.01031555 + t * tail))));
  return z + Math.log(sum / Math.sqrt(z));
}
