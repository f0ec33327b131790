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
    /// <summary>Played one after the other by one worker, with random numbers of their own: so the result does not depend on the number of cores.</summary>
    private const int Batch = 250;

    /// <param name="pot">The ball (slot) and the pocket that are meant, with their geometry, if any.</param>
    /// <param name="seed">The same seed gives the same samples.</param>
    /// <param name="workers">How many at once; −1 for all cores.</param>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static SpreadResult Sample(
        Layout layout, Stroke stroke, (int Slot, Cut Cut)? pot, Skill skill, TableShape shape,
        int samples = 2000, int seed = 1, int workers = -1, CancellationToken cancel = default)
    {
        var tallies = new Tally[(samples + Batch - 1) / Batch];
        Parallel.For(0, tallies.Length, new() { MaxDegreeOfParallelism = workers, CancellationToken = cancel }, i =>
            tallies[i] = Play(layout, stroke, pot, skill, shape, Math.Min(Batch, samples - i * Batch), unchecked(seed * 7919 + i), cancel));
        List<PathPoint> rests = [.. tallies.SelectMany(t => t.Rests)];
        double Share(Func<Tally, int> count) => (double)tallies.Sum(count) / samples;
        var density = new Density(rests);
        return new(samples, Share(t => t.Pots), Share(t => t.InOffs), Share(t => t.Kisses), Share(t => t.Thick), Share(t => t.Thin),
            rests, density.Outline(0.68), density.Outline(0.95));
    }

    private sealed class Tally
    {
        public int Pots, InOffs, Kisses, Thick, Thin;
        public readonly List<PathPoint> Rests = [];
    }

    private static Tally Play(
        Layout layout, Stroke stroke, (int Slot, Cut Cut)? pot, Skill skill, TableShape shape, int samples, int seed, CancellationToken cancel)
    {
        var simulator = new Simulator(shape);
        var record = new ShotRecord();
        var random = new Random(seed);
        var tally = new Tally();
        var target = pot?.Slot ?? -1;
        for (var i = 0; i < samples; i++)
        {
            cancel.ThrowIfCancellationRequested();
            var (turn, pace) = Normal.Pair(random);
            var (side, height) = Normal.Pair(random);
            var speed = Pace.CueSpeed(stroke.Pace) * Math.Max(0.02, 1 + pace * skill.PacePercent / 100);
            var strike = Strike.Create(stroke.AimDegrees + turn * skill.DirectionDegrees, Math.Min(Strike.MaxCueSpeed, speed),
                Tip.Fraction(stroke.SideTips), Tip.Fraction(stroke.HeightTips), stroke.ElevationDegrees);
            simulator.Place(layout.AsSpan());
            simulator.Release([(0, strike.Launch(shape.Conditions, side * skill.TipError, height * skill.TipError))], record);

            if (simulator.PocketOf(0) is null) tally.Rests.Add(new(0, simulator.X(0), simulator.Y(0)));
            else tally.InOffs++;
            if (Kisses(record, target)) tally.Kisses++;
            if (pot is not { } meant) continue;
            if (simulator.PocketOf(target) == meant.Cut.Pocket) tally.Pots++;
            else if (MissedThick(record, meant.Slot, meant.Cut)) tally.Thick++;
            else tally.Thin++;
        }
        return tally;
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
    private static bool MissedThick(ShotRecord record, int slot, in Cut cut)
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
