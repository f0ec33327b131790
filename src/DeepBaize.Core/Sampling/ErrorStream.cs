using DeepBaize.Core.Geometry;
using DeepBaize.Core.Players;

namespace DeepBaize.Core.Sampling;

/// <summary>
/// Errors of strokes, one after the other, as evenly spread as can be: <see cref="Replicates"/> scrambled nets taken in turn, so that
/// their scatter tells how exact an average over them is. Streams of different names are independent: a stream that has chosen a stroke
/// never reports on it.
/// </summary>
public readonly record struct ErrorStream
{
    /// <summary>How many nets are taken in turn.</summary>
    public const int Replicates = 8;

    private readonly uint _seed;

    private ErrorStream(uint seed) => _seed = seed;

    public static ErrorStream Named(string name)
    {
        var seed = 2166136261u;
        foreach (var letter in name)
            seed = (seed ^ letter) * 16777619;
        return new(ScrambledNet.Hash(seed, 0));
    }

    /// <summary>A stream independent of this one and of its other parts: of the k-th shot of a break, say.</summary>
    public ErrorStream Part(int k) => new(ScrambledNet.Hash(_seed, (uint)k + 1));

    /// <summary>Error of the i-th stroke, from 0.</summary>
    public StrokeError At(int i, Skill skill) =>
        ErrorOf((uint)(i / Replicates), ScrambledNet.Hash(_seed, 0x5eed0000u + (uint)(i % Replicates)), skill);

    /// <summary>
    /// The first errors of one net alone: for few strokes the evenest, to compare strokes by; an average over them knows no error of its
    /// own.
    /// </summary>
    public StrokeError[] Set(int count, Skill skill)
    {
        var seed = ScrambledNet.Hash(_seed, 0x5e7);
        return [.. Enumerable.Range(0, count).Select(i => ErrorOf((uint)i, seed, skill))];
    }

    /// <summary>The toss of a coin for the i-th stroke: of a dimension that no error uses.</summary>
    public bool Heads(int i) => ScrambledNet.At((uint)i, ScrambledNet.Dimensions - 1, _seed) < 0.5;

    private static StrokeError ErrorOf(uint index, uint seed, Skill skill)
    {
        double Part(int dimension) => Normal.Quantile(ScrambledNet.At(index, dimension, seed));
        var error = StrokeError.Of(skill, turn: Part(0), pace: Part(1), side: Part(2), height: Part(3));
        // How balls are laid has far too many dimensions for a net, and little to do with any one of them.
        return error with { Lay = (int)(ScrambledNet.Hash(seed, 0x1a1d + index) >> 1 | 1) };
    }
}
