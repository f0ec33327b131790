using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Valuing;

/// <summary>How the balls on can be seen from the white.</summary>
/// <param name="IsSnookered">By the rules: no ball on can be seen on both its extreme edges.</param>
/// <param name="Seen">Of the ball on that can be hit best: the share of it that can be hit in a straight line, 0–1.</param>
/// <param name="Distance">To the nearest ball on, m.</param>
/// <param name="HiddenBy">The ball that hides most of the ball on; null if it is in full sight.</param>
public readonly record struct Sight(bool IsSnookered, double Seen, double Distance, Ball? HiddenBy = null);

/// <summary>How the white lies.</summary>
/// <param name="ToCushion">From touching the nearest cushion, m.</param>
/// <param name="IsInHand">It is played from the D.</param>
/// <param name="IsInJaws">It lies in the jaws of a corner.</param>
public readonly record struct Lie(double ToCushion, bool IsInHand = false, bool IsInJaws = false)
{
    private const double Tight = 0.004;

    /// <summary>Whether the white is tight on a cushion.</summary>
    public bool IsTight => ToCushion < Tight;
}

/// <summary>A table as the player who comes to it finds it.</summary>
/// <param name="Best">The pot that is on for that player; None if there is none.</param>
/// <param name="Foul">The chance that the player fails to hit a ball on, wholly hidden.</param>
/// <param name="LeftBySafety">The chance that the player's best safety leaves the other one an open pot.</param>
public readonly record struct Outlook(Quality Best, Sight Sight, Lie Lie, double Foul, double LeftBySafety)
{
    /// <summary>Of a frame that is over.</summary>
    public static Outlook Nothing { get; } = new(Quality.None, default, default, 0, 0);

    /// <summary>Points of the penalty, if the ball on is missed.</summary>
    public int Penalty { get; init; }

    /// <summary>
    /// Points that the player may expect of this visit, less those that fouls give away: what is told beside the measure of the answer.
    /// </summary>
    public double Worth => Best.Value - Foul * Penalty;

    /// <summary>Points of the player of the stroke that left it: made, or given away, and those that may be expected after it.</summary>
    public double PointsAfter(Ruling ruling) => ruling.Points > 0 ? ruling.Points + Worth : -ruling.Penalty - Worth;

    /// <summary>Returns this outlook with a chance of the best pot that was found by strokes.</summary>
    /// <param name="valueOn">Points of the ball on, for a pot that the quick look has not seen.</param>
    public Outlook WithChance(double chance, int valueOn) =>
        this with
        {
            Best =
                Best.Pot is null && chance > 0
                    ? Best with
                    {
                        Chance = chance,
                        Points = valueOn,
                        IsOn = true,
                        Onward = 1,
                        Value = chance * valueOn,
                    }
                    : Best with
                    {
                        Chance = chance,
                        Value = Best.Chance > 0 ? Best.Value * chance / Best.Chance : 0,
                    },
        };

    /// <summary>A pot better than even is on.</summary>
    public bool LeavesPot => Best.Chance > PositionJudge.Even;
}
