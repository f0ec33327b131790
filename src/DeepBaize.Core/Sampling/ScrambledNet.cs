namespace DeepBaize.Core.Sampling;

/// <summary>
/// Points that fill a cube more evenly than random ones: Sobol's sequence, scrambled after Owen. Any 2^k of them in a row from the start
/// fall one each into all slabs of width 2^−k, in every dimension; and each by itself is uniform, so that averages stay unbiased.
/// </summary>
/// <remarks>
/// Direction numbers: Joe &amp; Kuo, <i>SIAM J. Sci. Comput.</i> 30 (2008) 2635. Scrambling: Owen, <i>J. Complexity</i> 14 (1998) 466, by
/// the hash of Laine &amp; Karras (2011) with the constants of Burley, <i>J. Comput. Graph. Tech.</i> 9 (2020) 1. All from memory.
/// </remarks>
public static class ScrambledNet
{
    /// <summary>Number of dimensions.</summary>
    public const int Dimensions = 10;

    /// <summary>Of the polynomials and the first direction numbers, from the second dimension on: degree, coefficients, numbers.</summary>
    private static readonly (int Degree, uint Inner, uint[] First)[] Table =
    [
        (1, 0, [1]),
        (2, 1, [1, 3]),
        (3, 1, [1, 3, 1]),
        (3, 2, [1, 1, 1]),
        (4, 1, [1, 1, 3, 3]),
        (4, 4, [1, 3, 5, 13]),
        (5, 2, [1, 1, 5, 5, 17]),
        (5, 4, [1, 1, 5, 5, 5]),
        (5, 7, [1, 1, 7, 11, 19]),
    ];

    private static readonly uint[][] Directions = [.. Enumerable.Range(0, Dimensions).Select(DirectionsOf)];

    private static uint[] DirectionsOf(int dimension)
    {
        var v = new uint[32];
        if (dimension == 0)
        {
            for (var k = 0; k < 32; k++)
                v[k] = 1u << (31 - k);
            return v;
        }
        var (degree, inner, first) = Table[dimension - 1];
        for (var k = 0; k < 32; k++)
        {
            if (k < degree)
            {
                v[k] = first[k] << (31 - k);
                continue;
            }
            v[k] = v[k - degree] ^ (v[k - degree] >> degree);
            for (var j = 1; j < degree; j++)
                if ((inner >> (degree - 1 - j) & 1) != 0)
                    v[k] ^= v[k - j];
        }
        return v;
    }

    /// <summary>One coordinate of a point, strictly between 0 and 1.</summary>
    public static double At(uint index, int dimension, uint seed) =>
        (Scrambled(Plain(index, dimension), Hash(seed, (uint)dimension)) + 0.5) / 4294967296.0;

    private static uint Plain(uint index, int dimension)
    {
        var v = Directions[dimension];
        var x = 0u;
        for (var k = 0; index != 0; index >>= 1, k++)
            if ((index & 1) != 0)
                x ^= v[k];
        return x;
    }

    private static uint Scrambled(uint x, uint seed)
    {
        x = Reversed(x);
        x += seed;
        x ^= x * 0x6c50b47c;
        x ^= x * 0xb82f1e52;
        x ^= x * 0xc7afe638;
        x ^= x * 0x8d22f6e6;
        return Reversed(x);
    }

    private static uint Reversed(uint x)
    {
        x = x >> 16 | x << 16;
        x = (x & 0x00ff00ff) << 8 | (x & 0xff00ff00) >> 8;
        x = (x & 0x0f0f0f0f) << 4 | (x & 0xf0f0f0f0) >> 4;
        x = (x & 0x33333333) << 2 | (x & 0xcccccccc) >> 2;
        return (x & 0x55555555) << 1 | (x & 0xaaaaaaaa) >> 1;
    }

    /// <summary>Two numbers mixed into one, without pattern (the finalizer of MurmurHash 3, from memory).</summary>
    public static uint Hash(uint a, uint b)
    {
        var h = a * 0x9e3779b1 + b + 0x7f4a7c15;
        h = (h ^ h >> 16) * 0x85ebca6b;
        h = (h ^ h >> 13) * 0xc2b2ae35;
        return h ^ h >> 16;
    }
}
