namespace DeepBaize.Core.Players;

/// <summary>
/// What chance does to one stroke, whoever plays it: standard normal numbers for the parts of the error. <see cref="Scatter"/> makes a
/// player's error of it.
/// </summary>
public readonly record struct StandardDraws(double Direction, double Sighting, double Allowance, double Pace, double Side, double Height)
{
    /// <summary>Number of independent standard draws of a stroke, without the jitter of touching balls.</summary>
    public const int Parts = 9;

    /// <summary>The share of all strokes that are steadier than this one as a whole, 0–1.</summary>
    public double FactorQuantile { get; init; } = 0.5;

    /// <summary>If the tip slips: how fast the ball leaves and how far to the left, among all that can be, 0–1.</summary>
    public double SlipSpeed { get; init; }

    /// <inheritdoc cref="SlipSpeed"/>
    public double SlipTurn { get; init; }

    /// <summary>Seed of what chance does on the table: how balls that touch are laid anew, how cushions are off; 0: nothing.</summary>
    public int Seed { get; init; }

    /// <summary>
    /// By plain random numbers: for what plays independently of all that was told. What the application tells comes from
    /// <c>Sampling.ErrorStream</c>.
    /// </summary>
    public static StandardDraws Draw(Random random)
    {
        var (direction, sighting) = Normal.Pair(random);
        var (allowance, pace) = Normal.Pair(random);
        var (side, height) = Normal.Pair(random);
        return new(direction, sighting, allowance, pace, side, height)
        {
            FactorQuantile = random.NextDouble(),
            SlipSpeed = random.NextDouble(),
            SlipTurn = random.NextDouble(),
            Seed = random.Next(1, int.MaxValue),
        };
    }
}
