using DeepBaize.Core.Planning;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Safety;

/// <summary>A table as the player who comes to it next finds it.</summary>
/// <param name="Worth">What it is worth to that player, in points; negative if it is rather a burden.</param>
/// <param name="Best">The pot that is on for that player; None if there is none.</param>
/// <param name="IsSnookered">By the rules: no ball on can be seen on both its extreme edges.</param>
/// <param name="Seen">Of the ball on that can be hit best: the share of it that can be hit in a straight line, 0–1.</param>
/// <param name="Distance">To the nearest ball on, m.</param>
/// <param name="ToCushion">Of the white, from touching, m.</param>
/// <param name="IsInHand">The white is played from the D.</param>
/// <param name="HiddenBy">The ball that hides most of the ball on; null if it is in full sight.</param>
/// <param name="IsInJaws">The white lies in the jaws of a corner.</param>
public readonly record struct Leave(double Worth, Quality Best, bool IsSnookered, double Seen, double Distance, double ToCushion, bool IsInHand, Ball? HiddenBy = null, bool IsInJaws = false)
{
    /// <summary>A pot better than even is left.</summary>
    public bool LeavesPot => Best.Chance > 0.5;

    public bool IsTight => ToCushion < 0.004;
}

/// <summary>Judges what is left for the other player, by the same chances and reach as one's own. See docs/safety.md.</summary>
public sealed class LeaveJudge
{
    // Common practice, no source: what it costs to come to the table with nothing easy, points.
    private const double TightCost = 0.6, HiddenCost = 1.0, FarCost = 0.4, FarAway = 2.0;

    /// <summary>Of the escapes from a snooker so many fail, by skill: of a tour player one in five, of a learner three in four.</summary>
    private const double FailsAtBest = 0.15, FailsPerDegree = 7, FailsAtMost = 0.75;

    /// <summary>The end of the frame, in points: more than any leave.</summary>
    public const double FrameWorth = 30;

    private const int Slices = 9;

    private readonly Worth _worth;
    private readonly double _fails;

    public LeaveJudge(Skill rival, Player player)
    {
        _worth = new(rival, player, PlanPreferences.Default);
        _fails = Math.Min(FailsAtMost, FailsAtBest + FailsPerDegree * rival.DirectionDegrees);
    }

    /// <param name="situation">With the other player at the table.</param>
    /// <param name="lines">Of the same balls.</param>
    public Leave Of(Situation situation, PotLines lines)
    {
        var frame = situation.Frame;
        if (frame.IsOver) return new(0, Quality.None, false, 0, 0, 0, false);
        var white = situation.Layout.White;
        if (frame.InHand)
        {
            // From wherever in the D it is best.
            var best = Quality.None;
            foreach (var (x, y) in PlacesInD)
                if (situation.Layout.Balls.Skip(1).All(b => Layout.Gap(x, y, b) >= 0) && _worth.At(situation, lines, x, y) is var q && q.Value > best.Value) best = q;
            return new(Math.Max(0, best.Value), best, false, 1, 1, 1, true);
        }
        var quality = _worth.Of(situation, lines);
        var (seen, distance, hiddenBy) = Sight(situation);
        var toCushion = Math.Min(Math.Min(white.X, Length - white.X), Math.Min(white.Y, Width - white.Y)) - BallRadius;
        var snookered = seen < 1 && IsSnookered(situation);
        // With no pot worth trying, the trouble that the leave gives.
        var trouble = HiddenCost * (1 - seen) + (toCushion < 0.004 ? TightCost : 0) + FarCost * Math.Min(1, distance / FarAway);
        if (snookered && seen == 0) trouble += _fails * Math.Max(Values.LeastPenalty, frame.On.AsColour() is { } due ? Values.Of(due) : 0);
        return new(quality.Value - (1 - quality.Chance) * trouble, quality, snookered, seen, distance, toCushion, false, hiddenBy, InJaws(white));
    }

    private static IEnumerable<(double X, double Y)> PlacesInD =>
        [(BaulkLineX - 0.02, Width / 2 - DRadius + 0.03), (BaulkLineX - 0.02, Width / 2 - 0.12), (BaulkLineX - 0.02, Width / 2 + 0.12), (BaulkLineX - 0.02, Width / 2 + DRadius - 0.03), (BaulkLineX - 0.2, Width / 2)];

    private static bool IsSnookered(Situation situation)
    {
        List<PlacedBall> balls = [.. situation.Layout.Balls.Skip(1)];
        return Snooker.IsSnookered(situation.Layout.White.X, situation.Layout.White.Y, balls, [.. situation.OnSlots().Select(s => s - 1)]);
    }

    private static bool InJaws(in PlacedBall white) => Math.Min(white.X, Length - white.X) < CornerMouth && Math.Min(white.Y, Width - white.Y) < CornerMouth;

    /// <summary>So near to both noses a ball is in a corner's jaws, m.</summary>
    private const double CornerMouth = 0.09;

    /// <summary>How much of the ball on that is seen best can be hit straight, and how far the nearest is.</summary>
    private static (double Seen, double Distance, Ball? HiddenBy) Sight(Situation situation)
    {
        var (layout, white) = (situation.Layout, situation.Layout.White);
        var (best, nearest) = (-1.0, Length);
        Ball? hiddenBy = null;
        foreach (var slot in situation.OnSlots())
        {
            var target = layout.Balls[slot];
            var (dx, dy) = (target.X - white.X, target.Y - white.Y);
            var distance = Math.Sqrt(dx * dx + dy * dy);
            nearest = Math.Min(nearest, distance - 2 * BallRadius);
            if (distance <= 2 * BallRadius + 1e-6) return (1, 0, null);
            if (best == 1) continue;
            var (ux, uy) = (dx / distance, dy / distance);
            var free = 0;
            Ball? inTheWay = null;
            for (var i = 0; i < Slices; i++)
            {
                // The white's centre comes so far beside the target's.
                var beside = (i - (Slices - 1) / 2.0) / ((Slices - 1) / 2.0) * 0.98 * 2 * BallRadius;
                var back = Math.Sqrt(4 * BallRadius * BallRadius - beside * beside);
                var (gx, gy) = (target.X - back * ux - beside * uy, target.Y - back * uy + beside * ux);
                var blocked = false;
                for (var k = 1; k < layout.Balls.Count && !blocked; k++)
                {
                    blocked = k != slot && !situation.Frame.On.Includes(layout.Balls[k].Ball) && Layout.GapFrom(white.X, white.Y, gx, gy, layout.Balls[k]) < 0;
                    if (blocked) inTheWay = layout.Balls[k].Ball;
                }
                if (!blocked) free++;
            }
            if ((double)free / Slices > best) (best, hiddenBy) = ((double)free / Slices, inTheWay);
        }
        return (Math.Max(0, best), nearest, hiddenBy);
    }
}
