namespace DeepBaize.Core.Physics;

/// <summary>
/// The first time at which a polynomial of degree four or less falls through zero: when a gap between two moving things closes.
/// </summary>
/// <remarks>
/// In Bernstein form over the interval a polynomial lies between its least and greatest coefficient, and has at most as many
/// roots as the coefficients change sign (variation diminishing; Farin, Curves and Surfaces for CAGD, from memory).
/// So most pairs are dismissed by five additions, one change of sign means exactly one root, and near-tangent cases are
/// settled by halving. A gap that is touched but not crossed within 2⁻³² of the interval is no contact: such a dip is
/// shallower than the rounding of the coordinates.
/// </remarks>
public static class FirstCrossing
{
    private const int MaxDepth = 32;

    /// <summary>Of c0 + c1·t + … + c4·t⁴ on [0, end]; c0 must be positive.</summary>
    /// <returns>The time, or +∞ if there is none.</returns>
    public static double Of(double c0, double c1, double c2, double c3, double c4, double end)
    {
        if (!(end > 0))
            return double.PositiveInfinity;
        var d1 = c1 * end;
        var d2 = c2 * end * end;
        var d3 = c3 * end * end * end;
        var d4 = c4 * end * end * end * end;
        var b1 = c0 + d1 * 0.25;
        var b2 = c0 + d1 * 0.5 + d2 * (1.0 / 6);
        var b3 = c0 + d1 * 0.75 + d2 * 0.5 + d3 * 0.25;
        var b4 = c0 + d1 + d2 + d3 + d4;
        if (b1 > 0 && b2 > 0 && b3 > 0 && b4 > 0)
            return double.PositiveInfinity;
        var s = Search(c0, d1, d2, d3, d4, c0, b1, b2, b3, b4, 0, 1, 0);
        return s * end;
    }

    /// <summary>Of c0 + c1·t + c2·t² on [0, end]; c0 may be negative if c1 &gt; 0 and c2 &lt; 0: the gap then opens first.</summary>
    public static double OfQuadratic(double c0, double c1, double c2, double end)
    {
        var t = double.PositiveInfinity;
        var disc = c1 * c1 - 4 * c2 * c0;
        if (disc > 0)
        {
            // The falling root is (−c1 − √disc)/(2·c2); written so that nothing cancels.
            var root = Math.Sqrt(disc);
            t =
                c1 <= 0 ? 2 * c0 / (root - c1)
                : c2 < 0 ? (c1 + root) / (-2 * c2)
                : double.PositiveInfinity;
        }
        return t <= end ? t : double.PositiveInfinity;
    }

    private static double Search(
        double c0,
        double d1,
        double d2,
        double d3,
        double d4,
        double b0,
        double b1,
        double b2,
        double b3,
        double b4,
        double lo,
        double hi,
        int depth
    )
    {
        var changes = Change(b0, b1) + Change(b1, b2) + Change(b2, b3) + Change(b3, b4);
        if (changes == 0)
            return b0 <= 0 ? lo : double.PositiveInfinity;
        if (changes == 1 && b0 > 0)
            return Polish(c0, d1, d2, d3, d4, lo, hi, b0, b4);
        if (depth == MaxDepth)
            return double.PositiveInfinity;

        // De Casteljau at the middle.
        double m01 = (b0 + b1) / 2,
            m12 = (b1 + b2) / 2,
            m23 = (b2 + b3) / 2,
            m34 = (b3 + b4) / 2;
        double m012 = (m01 + m12) / 2,
            m123 = (m12 + m23) / 2,
            m234 = (m23 + m34) / 2;
        double m0123 = (m012 + m123) / 2,
            m1234 = (m123 + m234) / 2;
        var middle = (m0123 + m1234) / 2;
        var mid = (lo + hi) / 2;
        var left =
            m01 > 0 && m012 > 0 && m0123 > 0 && middle > 0
                ? double.PositiveInfinity
                : Search(c0, d1, d2, d3, d4, b0, m01, m012, m0123, middle, lo, mid, depth + 1);
        return left < double.PositiveInfinity || (m1234 > 0 && m234 > 0 && m34 > 0 && b4 > 0 && middle > 0)
            ? left
            : Search(c0, d1, d2, d3, d4, middle, m1234, m234, m34, b4, mid, hi, depth + 1);
    }

    private static int Change(double a, double b) => a > 0 != b > 0 ? 1 : 0;

    /// <summary>Newton kept within the bracket [lo, hi], in which the polynomial falls through zero once.</summary>
    private static double Polish(double c0, double d1, double d2, double d3, double d4, double lo, double hi, double atLo, double atHi)
    {
        // From the parabola that fits at lo: balls in contact meet again after a ten-thousandth of the interval, where the chord is no
        // guide.
        var slopeAtLo = d1 + lo * (2 * d2 + lo * (3 * d3 + lo * 4 * d4));
        var s = lo + OfQuadratic(atLo, slopeAtLo, d2 + lo * (3 * d3 + lo * 6 * d4), hi - lo);
        if (!(s > lo && s < hi))
            s = lo + (hi - lo) * (atLo / (atLo - atHi));
        for (var i = 0; i < 60; i++)
        {
            var value = c0 + s * (d1 + s * (d2 + s * (d3 + s * d4)));
            if (value > 0)
                lo = s;
            else
                hi = s;
            var slope = d1 + s * (2 * d2 + s * (3 * d3 + s * 4 * d4));
            var next = s - value / slope;
            if (!(next > lo && next < hi))
            {
                // Newton leaves the bracket, or is at its edge to the last digit.
                if (Math.Abs(next - s) <= 1e-15 * s)
                    return s;
                next = (lo + hi) / 2;
                if (next == lo || next == hi)
                    return next;
            }
            // So near, the next step would be smaller than rounding: it is as the square of this one.
            else if (Math.Abs(next - s) <= 1e-9 * next)
                return next;
            s = next;
        }
        return s;
    }
}
