using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Shots;

/// <summary>What comes of a stroke as a player of some skill plays it: many times, with errors.</summary>
/// <param name="Samples">How many were played.</param>
/// <param name="Pot">Share in which the chosen ball goes into the chosen pocket.</param>
/// <param name="InOff">Share in which the white goes in.</param>
/// <param name="Kiss">Share in which the white or the chosen ball meets a third ball after their own contact.</param>
/// <param name="Rests">Where the white came to rest, m, one for each sample in which it stayed on the table.</param>
/// <param name="Likely">Outlines of the smallest area that holds 68 % of the rests: closed polygons, m.</param>
/// <param name="Nearly">The same for 95 %.</param>
/// <param name="MissThick">Share of samples in which the ball was missed on the thick side.</param>
/// <param name="MissThin">Share of samples in which the ball was missed on the thin side, or not hit.</param>
public sealed record SpreadResult(
    int Samples, double Pot, double InOff, double Kiss, double MissThick, double MissThin,
    IReadOnlyList<PathPoint> Rests, IReadOnlyList<IReadOnlyList<PathPoint>> Likely, IReadOnlyList<IReadOnlyList<PathPoint>> Nearly);

/// <summary>Samples a stroke with a player's errors, on the table as it stands.</summary>
public static class Spread
{
    /// <param name="pot">The ball (slot) and the pocket that are meant, with their geometry, if any.</param>
    /// <param name="seed">The same seed gives the same samples.</param>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static SpreadResult Sample(
        Layout layout, Stroke stroke, (int Slot, Cut Cut)? pot, Skill skill, TableShape shape, int samples = 2000, int seed = 1, CancellationToken cancel = default)
    {
        var simulator = new Simulator(shape);
        var record = new ShotRecord();
        var random = new Random(seed);
        var rests = new List<PathPoint>(samples);
        int pots = 0, inOffs = 0, kisses = 0, thick = 0, thin = 0;
        var target = pot?.Slot ?? -1;
        for (var i = 0; i < samples; i++)
        {
            if (i % 50 == 0) cancel.ThrowIfCancellationRequested();
            var (turn, pace) = Normal.Pair(random);
            var (side, height) = Normal.Pair(random);
            var speed = Pace.CueSpeed(stroke.Pace) * Math.Max(0.02, 1 + pace * skill.PacePercent / 100);
            var strike = Strike.Create(stroke.AimDegrees + turn * skill.DirectionDegrees, Math.Min(Strike.MaxCueSpeed, speed),
                Tip.Fraction(stroke.SideTips), Tip.Fraction(stroke.HeightTips), stroke.ElevationDegrees);
            simulator.Place(layout.AsSpan());
            simulator.Release([(0, strike.Launch(shape.Conditions, side * skill.TipError, height * skill.TipError))], record);

            if (simulator.PocketOf(0) is null) rests.Add(new(0, simulator.X(0), simulator.Y(0)));
            else inOffs++;
            if (Kisses(record, target)) kisses++;
            if (pot is not { } meant) continue;
            if (simulator.PocketOf(target) == meant.Cut.Pocket) pots++;
            else if (MissedThick(record, meant.Slot, meant.Cut, layout)) thick++;
            else thin++;
        }
        var density = new Density(rests);
        return new(samples, (double)pots / samples, (double)inOffs / samples, (double)kisses / samples, (double)thick / samples, (double)thin / samples,
            rests, density.Outline(0.68), density.Outline(0.95));
    }

    private static bool Kisses(ShotRecord record, int target)
    {
        var met = false;
        foreach (var e in record.Events)
        {
            if (e.Kind != ShotEventKind.Ball) continue;
            var isPair = (e.Ball == 0 && (target < 0 || e.Other == target)) || (e.Other == 0 && e.Ball == target);
            if (!met) met = isPair;
            else if (e.Ball == 0 || e.Other == 0 || e.Ball == target || e.Other == target) return true;
        }
        return false;
    }

    /// <summary>Whether the object ball set off on the thick side of the potting line: turned less than the cut asks.</summary>
    private static bool MissedThick(ShotRecord record, int slot, in Cut cut, Layout layout)
    {
        foreach (var piece in record.Pieces)
        {
            if (piece.Ball != slot) continue;
            var off = Math.IEEERemainder(Math.Atan2(piece.Vy, piece.Vx) * 180 / Math.PI - cut.PotDegrees, 360);
            return cut.CutDegrees > 0 ? off < 0 : off > 0;
        }
        return false;
    }
}
