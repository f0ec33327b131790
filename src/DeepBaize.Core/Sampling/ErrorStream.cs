using DeepBaize.Core.Players;

namespace DeepBaize.Core.Sampling;

/// <summary>
/// Standard draws of strokes, one after the other, spread evenly (quasi-random): <see cref="Replicates"/> scrambled nets taken in turn, so
/// that their scatter gives the error of an average over them. Streams of different names are independent: a stream that has chosen a
/// stroke never reports on it.
/// </summary>
public readonly record struct ErrorStream
{
    /// <summary>How many nets are taken in turn.</summary>
    public const int Replicates = 8;

    private readonly uint _seed;

    private ErrorStream(uint seed) => _seed = seed;

    /// <summary>Returns the stream with a name; streams with different names are independent.</summary>
    public static ErrorStream Named(string name)
    {
        var seed = 2166136261u;
        foreach (var letter in name)
            seed = (seed ^ letter) * 16777619;
        return new(ScrambledNet.Hash(seed, 0));
    }

    /// <summary>A stream independent of this one and of its other parts: of the k-th shot of a break, say.</summary>
    public ErrorStream Part(int k) => new(ScrambledNet.Hash(_seed, (uint)k + 1));

    /// <summary>Standard draws of the i-th stroke, from 0.</summary>
    public StandardDraws At(int i) => DrawsOf((uint)(i / Replicates), ScrambledNet.Hash(_seed, 0x5eed0000u + (uint)(i % Replicates)));

    /// <summary>
    /// The first strokes of one net alone: for few strokes the evenest, to compare strokes by; an average over them knows no error of its
    /// own.
    /// </summary>
    public StandardDraws[] Set(int count)
    {
        var seed = ScrambledNet.Hash(_seed, 0x5e7);
        return [.. Enumerable.Range(0, count).Select(i => DrawsOf((uint)i, seed))];
    }

    /// <summary>The toss of a coin for the i-th stroke: of a dimension that no error uses.</summary>
    public bool Heads(int i) => ScrambledNet.At((uint)i, ScrambledNet.Dimensions - 1, _seed) < 0.5;

    /// <summary>A dimension for each part; what matters most has the first, which are the most even.</summary>
    private static StandardDraws DrawsOf(uint index, uint seed)
    {
        double Share(int dimension) => ScrambledNet.At(index, dimension, seed);
        double Part(int dimension) => Normal.Quantile(Share(dimension));
        return new(Direction: Part(0), Sighting: Part(1), Allowance: Part(6), Pace: Part(3), Side: Part(4), Height: Part(5))
        {
            FactorQuantile = Share(2),
            SlipSpeed = Share(7),
            SlipTurn = Share(8),
            // How balls are laid has far too many dimensions for a net, and little to do with any one of them.
            Seed = (int)(ScrambledNet.Hash(seed, 0x1a1d + index) >> 1 | 1),
        };
    }
}
