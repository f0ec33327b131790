using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;

namespace DeepBaize.Core.Valuing;

/// <summary>
/// What a player plays for, as one measure: every stroke, plan, safety and escape of one answer is valued in it, for the player who asks
/// and whoever is at the table. See docs/safety.md, "One measure".
/// </summary>
public interface IObjective
{
    /// <summary>Name of the measure: "win", "points" or "target".</summary>
    string Unit { get; }

    /// <summary>About what one point is worth in this measure. For differences that do not matter, never for a value.</summary>
    double Point { get; }

    /// <summary>
    /// Standard error of the measure itself about a value: by how much what is reckoned differs from what is played out. From calibration
    /// (docs/safety.md); it is not in the errors of the strokes played.
    /// </summary>
    double ModelErrorOf(double value);

    /// <summary>Value of a frame that is over; exact.</summary>
    double Terminal(Frame frame);

    /// <summary>Value of a frame with a table that a judge has looked at.</summary>
    /// <param name="outlook">Of the player at the table, whichever of the two it is.</param>
    double Of(Frame frame, in Outlook outlook);

    /// <summary>Value of a frame as a usual miss leaves it: the other player is at a table that nobody has looked at.</summary>
    /// <param name="frame">After the miss.</param>
    double AfterMiss(Frame frame);
}

/// <summary>Chooses the measure of an answer.</summary>
public static class Objectives
{
    /// <param name="from">The frame in which the question is asked.</param>
    /// <param name="me">The player who asks, 0 or 1.</param>
    /// <param name="player">That player.</param>
    /// <param name="rival">The other one.</param>
    public static IObjective For(Frame from, int me, Player player, Player rival, PlanPreferences preferences) =>
        preferences.Target switch
        {
            PlanTarget.Score or PlanTarget.Clear => new TargetObjective(from, me, new(player, preferences)),
            PlanTarget.Frame when IsOpen(from) => new FrameObjective(me, player, rival),
            _ => new PointsObjective(from, me, player, rival),
        };

    /// <summary>
    /// Penalties that nobody plays on for: with more of them needed every line is as good as another, and points are asked for.
    /// </summary>
    private const int MostPenalties = 4;

    private static bool IsOpen(Frame from) =>
        from is { Repeats: false, Exercise: null } && Math.Abs(from.Lead) <= from.PointsLeft + MostPenalties * Values.LeastPenalty;
}
