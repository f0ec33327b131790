namespace DeepBaize.Core.Geometry;

/// <summary>
/// A small stream of random numbers for what is drawn inside one stroke: equal seeds give equal numbers (Steele, Lea &amp; Flood, OOPSLA
/// 2014; constants from memory).
/// </summary>
/// <param name="seed">Any number; neighbouring seeds give unrelated streams.</param>
public struct SplitMix64(ulong seed)
{
    private ulong _state = seed;

    /// <summary>Returns the next number, evenly spread over 0 to 1, 1 exclusive.</summary>
    public double Uniform()
    {
        _state += 0x9e3779b97f4a7c15;
        var z = _state;
        z = (z ^ z >> 30) * 0xbf58476d1ce4e5b9;
        z = (z ^ z >> 27) * 0x94d049bb133111eb;
        return ((z ^ z >> 31) >> 11) * (1.0 / (1ul << 53));
    }

    /// <summary>Returns two independent standard normal numbers (Box &amp; Muller 1958).</summary>
    public Vec2 NormalPair()
    {
        var radius = Math.Sqrt(-2 * Math.Log(1 - Uniform()));
        return radius * Angle.FromRadians(2 * Math.PI * Uniform()).Unit;
    }
}
