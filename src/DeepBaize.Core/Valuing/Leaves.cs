using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

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

/// <summary>A table as the player who comes to it next finds it.</summary>
/// <param name="Worth">What it is worth to that player, in points; negative if it is rather a burden.</param>
/// <param name="Best">The pot that is on for that player; None if there is none.</param>
/// <param name="Foul">The chance that the player fails to hit a ball on, wholly hidden.</param>
public readonly record struct Leave(double Worth, Quality Best, Sight Sight, Lie Lie, double Foul = 0)
{
    /// <summary>Of a frame that is over.</summary>
    public static Leave Nothing { get; } = new(0, Quality.None, default, default);

    /// <summary>A pot better than even is left.</summary>
    public bool LeavesPot => Best.Chance > LeaveJudge.Even;
}

/// <summary>Judges what is left for the other player, by the same chances and reach as one's own. See docs/safety.md.</summary>
public sealed class LeaveJudge
{
    // Common practice, no source: what it costs to come to the table with nothing easy, points.
    private const double TightCost = 0.6,
        HiddenCost = 1.0,
        FarCost = 0.4,
        FarAway = 2.0;

    /// <summary>
    /// Of the escapes from a snooker so many fail, by how far off the white is where the ball is met, most of it for the cushion between:
    /// of a tour player one in five, of a learner three in four.
    /// </summary>
    private const double FailsAtBest = 0.15,
        FailsPerMetre = 12,
        EscapeDistance = 3,
        AfterCushion = 1.5,
        FailsAtMost = 0.75;

    /// <summary>The end of the frame, in points: more than any leave.</summary>
    public const double FrameWorth = 30;

    private const int Slices = 9;

    private readonly Evaluation _evaluation;
    private readonly Player _rival;
    private readonly TableShape _shape;
    private readonly double _fails;

    /// <param name="rival">Who comes to the table.</param>
    public LeaveJudge(Player rival, TableShape shape)
    {
        (_evaluation, _rival, _shape) = (new(rival, PlanPreferences.Default), rival, shape);
        var (direction, sighting) = (
            Angle.FromDegrees(rival.Skill.DirectionDegrees).Radians * EscapeDistance,
            rival.Skill.SightingAt(0, EscapeDistance)
        );
        var cushion = Angle.FromDegrees(rival.Skill.CushionDegrees).Radians * AfterCushion;
        var off = Math.Sqrt(direction * direction + sighting * sighting + cushion * cushion);
        _fails = Math.Min(FailsAtMost, FailsAtBest + FailsPerMetre * off);
    }

    /// <param name="situation">With the other player at the table.</param>
    /// <param name="lines">Of the same balls.</param>
    public Leave Of(Situation situation, PotLines lines)
    {
        var frame = situation.Frame;
        if (frame.IsOver)
            return Leave.Nothing;
        if (frame.InHand)
            return InHand(situation, lines);
        var white = situation.Layout.White.At;
        var quality = _evaluation.Of(situation, lines);
        var sight = SightOf(situation);
        var lie = new Lie(Cushions.Clearance(white), IsInJaws: InJaws(white));
        // With no pot worth trying, the trouble that the leave gives.
        var trouble = HiddenCost * (1 - sight.Seen) + (lie.IsTight ? TightCost : 0) + FarCost * Math.Min(1, sight.Distance / FarAway);
        var foul = sight is { IsSnookered: true, Seen: 0 } ? _fails : 0;
        trouble += foul * frame.LeastPenalty;
        return new(quality.Value - (1 - quality.Chance) * trouble, quality, sight, lie, foul);
    }

    // Of so many pots that look best it is asked how good they are; beyond these a quick estimate is sure enough.
    private const int Tried = 4;
    private const double SurelyNot = 0.1,
        Surely = 0.93;

    /// <summary>
    /// The rival's chance at his best ball, by strokes at several paces, plants and doubles among them: for what is told. The quick
    /// estimate of
    /// <paramref name="leave"/> misses one leave in three on open tables.
    /// </summary>
    public double BestChance(Situation situation, PotLines lines, in Leave leave)
    {
        if (situation.Frame.IsOver || leave.Best.Chance > Surely || leave.Lie.IsInHand)
            return leave.Best.Chance;
        var white = situation.Layout.White.At;
        var pots = new List<QuickPot>();
        foreach (ref readonly var line in lines.Lines)
            if (situation.Frame.MayPlay(lines.BallIn(line.Slot)) && lines.From(line, white, _rival.Skill) is { Chance: > SurelyNot } pot)
                pots.Add(pot);
        var best = 0.0;
        foreach (var pot in pots.OrderByDescending(p => p.Chance).Take(Tried))
        {
            // One that looks much worse than what is found already adds nothing, and a poor one is told well enough by the estimate.
            if (pot.Chance < best - MuchWorse || pot.Chance < Poor)
            {
                best = Math.Max(best, pot.Chance);
                break;
            }
            best = Math.Max(best, TableReading.BestChance(situation.Layout, new(pot.Line.Slot, pot.Line.Pocket), _rival, _shape));
        }
        // All red, or any of an exercise: else two balls in a row are not on.
        return best > Even || situation.Frame.On == BallOn.Colour
            ? best
            : Math.Max(best, TableReading.BestIndirect(situation.Layout, situation.Frame.MayPlay, _rival, _shape, LeastIndirect));
    }

    /// <summary>Better than even.</summary>
    public const double Even = 0.5;

    private const double MuchWorse = 0.1,
        Poor = 0.3,
        LeastIndirect = 0.4;

    /// <summary>
    /// Value of a stroke to the player, points: what it makes or gives away, less what it leaves if the other player comes to the table.
    /// </summary>
    public static double ValueOf(PlayedStroke played, in Leave leave)
    {
        var ruling = played.Ruling;
        if (ruling.NextFrame.IsOver)
            return ruling.Points > 0 ? FrameWorth : -FrameWorth;
        // After a pot the break goes on: what is left is the player's own.
        return ruling.Points > 0 ? ruling.Points + Math.Max(0, leave.Worth) : -ruling.Penalty - leave.Worth;
    }

    /// <summary>From wherever in the D it is best.</summary>
    private Leave InHand(Situation situation, PotLines lines)
    {
        var best = Quality.None;
        foreach (var place in PlacesInD)
            if (
                situation.Layout.Balls.Skip(1).All(b => b.Gap(place) >= 0)
                && _evaluation.At(situation, lines, place) is var q
                && q.Value > best.Value
            )
                best = q;
        return new(Math.Max(0, best.Value), best, new(false, 1, 1), new(1, IsInHand: true));
    }

    private static readonly Vec2[] PlacesInD =
    [
        new(BaulkLineX - 0.02, Width / 2 - DRadius + 0.03),
        new(BaulkLineX - 0.02, Width / 2 - 0.12),
        new(BaulkLineX - 0.02, Width / 2 + 0.12),
        new(BaulkLineX - 0.02, Width / 2 + DRadius - 0.03),
        new(BaulkLineX - 0.2, Width / 2),
    ];

    private static bool InJaws(Vec2 white) =>
        Math.Min(white.X, Length - white.X) < CornerMouth && Math.Min(white.Y, Width - white.Y) < CornerMouth;

    /// <summary>So near to both noses a ball is in a corner's jaws, m.</summary>
    private const double CornerMouth = 0.09;

    /// <summary>How much of the ball on that is seen best can be hit straight, and how far the nearest is.</summary>
    private static Sight SightOf(Situation situation)
    {
        var (layout, white) = (situation.Layout, situation.Layout.White.At);
        var (best, nearest) = (-1.0, Length);
        Ball? hiddenBy = null;
        foreach (var slot in situation.OnSlots())
        {
            var distance = white.DistanceTo(layout.Balls[slot].At);
            nearest = Math.Min(nearest, distance - 2 * BallRadius);
            if (distance <= 2 * BallRadius + 1e-6)
                return new(false, 1, 0);
            if (best == 1)
                continue;
            var (seen, inTheWay) = SeenOf(situation, slot);
            if (seen > best)
                (best, hiddenBy) = (seen, inTheWay);
        }
        var share = Math.Max(0, best);
        return new(share < 1 && situation.IsSnookered, share, nearest, hiddenBy);
    }

    /// <summary>The share of a ball that can be hit straight, and the last ball that hides some of it.</summary>
    public static (double Share, Ball? HiddenBy) SeenOf(Situation situation, int slot)
    {
        var (layout, white, target) = (situation.Layout, situation.Layout.White.At, situation.Layout.Balls[slot].At);
        var towards = (target - white).Unit;
        var free = 0;
        Ball? inTheWay = null;
        for (var i = 0; i < Slices; i++)
        {
            // The white's centre comes so far beside the target's.
            var beside = (i - (Slices - 1) / 2.0) / ((Slices - 1) / 2.0) * 0.98 * 2 * BallRadius;
            var back = Math.Sqrt(4 * BallRadius * BallRadius - beside * beside);
            var way = new Segment(white, target - back * towards + beside * towards.Left);
            var blocked = false;
            for (var k = 1; k < layout.Balls.Count && !blocked; k++)
            {
                blocked = k != slot && !situation.Frame.IsOn(layout.Balls[k].Ball) && !layout.Balls[k].IsClearOf(way);
                if (blocked)
                    inTheWay = layout.Balls[k].Ball;
            }
            if (!blocked)
                free++;
        }
        return ((double)free / Slices, inTheWay);
    }
}
