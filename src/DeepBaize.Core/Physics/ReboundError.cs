namespace DeepBaize.Core.Physics;

/// <summary>
/// By how much rebounds off straight noses are turned from what the law of the cushion says, in one stroke. docs/model.md, "How people
/// miss".
/// </summary>
/// <param name="Seed">
/// Of the turns; 0: every rebound is as the law says, but for <see cref="OfFirst"/>; the negative of a seed gives the mirror image.
/// </param>
/// <param name="WhiteDegrees">Standard deviation for the white at each of its first <paramref name="Cushions"/> rebounds.</param>
/// <param name="Cushions">How many cushions the white is meant to meet before its first ball.</param>
/// <param name="DoubledDegrees">
/// Standard deviation at the first rebound of the ball that the white struck, if it is to be doubled; else 0.
/// </param>
public readonly record struct ReboundError(int Seed, double WhiteDegrees = 0, int Cushions = 0, double DoubledDegrees = 0)
{
    /// <summary>
    /// No nose is alike everywhere: standard deviation of every ball's direction off every cushion, degrees. Common practice, no source.
    /// </summary>
    public const double TableDegrees = 0.15;

    /// <summary>
    /// Standard normal numbers of equal shares: asked for with every rebound of every ball, and far finer than it matters.
    /// </summary>
    private static readonly double[] Normals = [.. Enumerable.Range(0, 4096).Select(i => Normal.Quantile((i + 0.5) / 4096))];

    /// <summary>Turns the white's first rebound by a known angle, and nothing else; degrees, + to the left.</summary>
    public static ReboundError OfFirst(double degrees) => new(0) { FirstDegrees = degrees };

    private double FirstDegrees { get; init; }

    /// <summary>Returns the turn of one rebound, degrees, + to the left.</summary>
    /// <param name="slot">Of the ball.</param>
    /// <param name="before">How many rebounds it has had before.</param>
    /// <param name="strucks">Slot of the ball that the white met first; −1 while it has met none.</param>
    public double TurnDegrees(int slot, int before, int strucks)
    {
        if (Seed == 0)
            return slot == 0 && before == 0 ? FirstDegrees : 0;
        // By ball and rebound, so that two strokes of the same chance meet the same cushions.
        var random = new SplitMix64((ulong)(uint)Math.Abs(Seed) << 32 | (uint)slot << 16 | (uint)before);
        var turn = TableDegrees * Normals[(int)(random.Uniform() * Normals.Length)];
        var own =
            slot == 0 && strucks < 0 && before < Cushions ? WhiteDegrees
            : slot == strucks && before == 0 ? DoubledDegrees
            : 0;
        if (own != 0)
            turn += own * random.NormalPair().X;
        return Seed < 0 ? -turn : turn;
    }
}
