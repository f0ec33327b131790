using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Reading;

/// <summary>A pot played with some side: what the side costs and saves.</summary>
/// <param name="SideTips">+ right-hand.</param>
/// <param name="IsHelping">Turns the object ball the way it is cut; false for plain ball and for the other side.</param>
/// <param name="Seen">How the line of aim passes the ball.</param>
/// <param name="PairThrowDegrees">
/// Of a plant: from the line of centres of the two balls to the way of the second, + to the left; null of other pots.
/// </param>
public sealed record SideChoice(
    double SideTips,
    bool IsHelping,
    Estimate Chance,
    double AimDegrees,
    Arrival Arrival,
    Allowance Allowance,
    AimSeen Seen,
    double? PairThrowDegrees
)
{
    /// <summary>What is called a touch, tips.</summary>
    public const double Touch = 0.25;

    /// <summary>Amounts of side that are laid beside plain ball, tips.</summary>
    private static readonly double[] Amounts = [Touch, 0.5, 1];

    /// <summary>Plain, and with a touch, half a tip and a tip of helping side and of the other; those for which there is an aim.</summary>
    public static IReadOnlyList<SideChoice> Of(Layout layout, Pot pot, Stroke stroke, Player player, TableShape shape, Workers workers)
    {
        var cut = Cut.Of(layout, pot, shape);
        // Right-hand side drags the front of the cue ball, and what it meets, to the left.
        var helping = cut.CutDegrees >= 0 ? 1 : -1;
        double[] sides = [0, .. Amounts.SelectMany(a => new[] { helping * a, -helping * a })];
        var played = sides.Where(s => StrokeKnob.Side.Allows(stroke, s)).ToList();
        var choices = workers.InParallel(
            played.Count,
            i => With(layout, cut, stroke with { SideTips = played[i] }, helping, player, shape)
        );
        return [.. choices.OfType<SideChoice>()];
    }

    private static SideChoice? With(Layout layout, in Cut cut, Stroke stroke, int helping, Player player, TableShape shape)
    {
        var option = TableReading.ReadOne(layout, cut.Pot, stroke, player, shape);
        if (!option.IsAimed)
            return null;
        var (played, trial) = (option.Stroke, new PotTrial(layout, cut, shape));
        trial.Miss(played);
        if (Arrival.Of(trial.Record, played.ToStrike(), shape) is not { } arrival)
            return null;
        var aim = played.AimDegrees;
        var struck = layout.Balls[cut.Pot.Struck].At;
        return new(
            SideTips: stroke.SideTips,
            IsHelping: stroke.SideTips * helping > 0,
            Chance: option.Chance,
            AimDegrees: aim,
            Arrival: arrival,
            Allowance: Allowance.Of(cut, arrival, aim),
            Seen: AimSeen.Of(layout.White.At, struck, cut, aim),
            PairThrowDegrees: cut.Pot.IsPlant ? PairThrow(trial.Record, layout.Balls[cut.Pot.Slot].At) : null
        );
    }

    /// <summary>Of a recorded plant, in whose trial the ball between is 1 and the other 2.</summary>
    private static double? PairThrow(ShotRecord record, Vec2 second)
    {
        var met = record.Events.Find(e => e.Kind == ShotEventKind.Ball && e.Ball + e.Other == 3 && e.Ball * e.Other == 2);
        var way = record.Pieces.Find(p => p.Ball == 2);
        if (met == default || way == default)
            return null;
        var between = record.Pieces.FindLast(p => p.Ball == 1 && p.End <= met.Time + 1e-9);
        var from = between == default ? met.At : between.To;
        return Angle.Between((second - from).Direction, new Vec2(way.Vx, way.Vy).Direction).Degrees;
    }
}
