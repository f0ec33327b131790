using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;

namespace DeepBaize.Core.Valuing;

/// <summary>
/// Own points less the other player's, from the question to the end of the next visit of each: for exercises, and where points are asked
/// for. In an exercise nobody comes to the table after a miss.
/// </summary>
/// <param name="from">The frame in which the question is asked.</param>
/// <param name="me">The player who asks, 0 or 1.</param>
/// <param name="player">That player.</param>
/// <param name="rival">The other one.</param>
public sealed class PointsObjective(Frame from, int me, Player player, Player rival) : IObjective
{
    private readonly VisitSkill _mine = VisitSkill.Of(player),
        _theirs = VisitSkill.Of(rival);

    /// <inheritdoc/>
    public string Unit => "points";

    /// <inheritdoc/>
    public double Point => 1;

    /// <inheritdoc/>
    public double ModelErrorOf(double value) => 3;

    /// <inheritdoc/>
    public double Terminal(Frame frame) => LeadOf(frame) - LeadOf(from);

    /// <inheritdoc/>
    public double Of(Frame frame, in Outlook outlook)
    {
        var made = Terminal(frame);
        if (frame.IsOver || frame.AwaitsLot)
            return made;
        if (frame.Repeats || frame.Exercise is not null)
            return made + (frame.Turn == me ? outlook.Best.Value : 0);
        var (own, other) = frame.Turn == me ? (_mine, _theirs) : (_theirs, _mine);
        var worth = VisitWorth(frame, outlook, own, other);
        return frame.Turn == me ? made + worth : made - worth;
    }

    /// <inheritdoc/>
    public double AfterMiss(Frame frame) =>
        Terminal(frame)
        - (frame.IsOver || frame.Exercise is not null || frame.Repeats ? 0 : _mine.OpeningAfterMiss * OpenVisit(frame, _theirs));

    /// <summary>
    /// Points of a visit less those of the other player's visit after it: the better of the pot, whose break ends in a miss, and of a
    /// safety.
    /// </summary>
    private static double VisitWorth(Frame frame, in Outlook outlook, in VisitSkill own, in VisitSkill other)
    {
        var after = OpenVisit(frame, other);
        var pot = outlook.Best.Value - own.OpeningAfterMiss * after;
        var safety = -outlook.LeftBySafety * after;
        return (1 - outlook.Foul) * Math.Max(pot, safety) - outlook.Foul * (frame.LeastPenalty + own.OpeningAfterMiss * after);
    }

    /// <summary>Points of an ordinary run through the balls that are left.</summary>
    private static double OpenVisit(Frame frame, in VisitSkill skill)
    {
        var (sum, alive) = (0.0, 1.0);
        for (var left = FrameChances.LeftOf(frame); left > 0; left--)
        {
            alive *= skill.Pot * skill.Keeps;
            sum += alive * FrameChances.PointsOf(left);
        }
        return sum;
    }

    private double LeadOf(Frame frame) => frame.ScoreOf(me) - frame.ScoreOf(1 - me);
}
