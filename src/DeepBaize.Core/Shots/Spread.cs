using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Shots;

/// <summary>What comes of a stroke as a player of some skill plays it: many times, with errors.</summary>
/// <param name="Samples">How many were played.</param>
/// <param name="Pot">Share in which the chosen ball goes into the chosen pocket.</param>
/// <param name="InOff">Share in which the white goes in.</param>
/// <param name="Kiss">Share in which the white or the chosen ball meets a third ball after their own contact.</param>
/// <param name="Wanted">Share in which the white does what is wanted of it, whether or not the pot goes in; 0 without a goal.</param>
/// <param name="Both">Share in which the ball goes in, the white stays on the table, and does it.</param>
/// <param name="Rests">Where the white came to rest, m, one for each sample in which it stayed on the table.</param>
/// <param name="Likely">Outlines of the smallest area that holds 68 % of the rests: closed polygons, m.</param>
/// <param name="Nearly">The same for 95 %.</param>
/// <param name="MissThick">Share of samples in which the ball was missed on the thick side.</param>
/// <param name="MissThin">Share of samples in which the ball was missed on the thin side, or not hit.</param>
/// <param name="ThickLeaves">Outlines of the smallest area that holds 68 % of the places where the object ball stops after a thick miss; none if such misses are too few.</param>
/// <param name="ThinLeaves">The same after a thin miss.</param>
public sealed record SpreadResult(
    int Samples, double Pot, double InOff, double Kiss, double MissThick, double MissThin, double Wanted, double Both,
    IReadOnlyList<PathPoint> Rests, IReadOnlyList<IReadOnlyList<PathPoint>> Likely, IReadOnlyList<IReadOnlyList<PathPoint>> Nearly,
    IReadOnlyList<IReadOnlyList<PathPoint>> ThickLeaves, IReadOnlyList<IReadOnlyList<PathPoint>> ThinLeaves);

/// <summary>Samples a stroke with a player's errors, on the table as it stands.</summary>
public static class Spread
{
    /// <summary>Played one after the other by one worker, with random numbers of their own: so the result does not depend on the number of cores.</summary>
    private const int Batch = 250;

    /// <summary>From fewer places an outline would be an accident.</summary>
    private const int FewestToOutline = 100;

    /// <param name="pot">The pot that is meant, with its geometry, if any.</param>
    /// <param name="seed">The same seed gives the same samples.</param>
    /// <param name="workers">How many at once; −1 for all cores.</param>
    /// <param name="goal">What the white is to do, if anything.</param>
    /// <param name="outlines">Whether the outlines are wanted.</param>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static SpreadResult Sample(
        Layout layout, Stroke stroke, Cut? pot, Skill skill, TableShape shape,
        int samples = 2000, int seed = 1, int workers = -1, Goal? goal = null, bool outlines = true, CancellationToken cancel = default)
    {
        var tallies = new Tally[(samples + Batch - 1) / Batch];
        Parallel.For(0, tallies.Length, new() { MaxDegreeOfParallelism = workers < 0 ? Environment.ProcessorCount : workers, CancellationToken = cancel }, i =>
            tallies[i] = Play(layout, stroke, pot, goal, skill, shape, Math.Min(Batch, samples - i * Batch), unchecked(seed * 7919 + i), cancel));
        List<PathPoint> rests = [.. tallies.SelectMany(t => t.Rests)];
        double Share(Func<Tally, int> count) => (double)tallies.Sum(count) / samples;
        var density = new Density(outlines ? rests : []);
        return new(samples, Share(t => t.Pots), Share(t => t.InOffs), Share(t => t.Kisses), Share(t => t.Thick), Share(t => t.Thin), Share(t => t.Wanted), Share(t => t.Both),
            rests, density.Outline(0.68), density.Outline(0.95), Leaves(t => t.ThickRests), Leaves(t => t.ThinRests));

        IReadOnlyList<IReadOnlyList<PathPoint>> Leaves(Func<Tally, List<PathPoint>> of)
        {
            List<PathPoint> places = [.. tallies.SelectMany(of)];
            return !outlines || places.Count < FewestToOutline ? [] : new Density(places).Outline(0.68);
        }
    }

    private sealed class Tally
    {
        public int Pots, InOffs, Kisses, Thick, Thin, Wanted, Both;
        public readonly List<PathPoint> Rests = [], ThickRests = [], ThinRests = [];
    }

    private static Tally Play(
        Layout layout, Stroke stroke, Cut? pot, Goal? goal, Skill skill, TableShape shape, int samples, int seed, CancellationToken cancel)
    {
        var simulator = new Simulator(shape, Simulator.Coarse);
        var record = new ShotRecord();
        var random = new Random(seed);
        var tally = new Tally();
        var meant = pot?.Pot;
        for (var i = 0; i < samples; i++)
        {
            cancel.ThrowIfCancellationRequested();
            StrokeError.Draw(random, skill).Play(simulator, layout, stroke, record);

            if (simulator.PocketOf(0) is null) tally.Rests.Add(new(0, simulator.X(0), simulator.Y(0)));
            else tally.InOffs++;
            if (Contacts.Kiss(record, meant, goal?.Meant ?? -1) is not null) tally.Kisses++;
            var isMet = goal is not null && goal.IsMet(record, simulator, layout);
            if (isMet) tally.Wanted++;
            if (pot is not { } cut) continue;
            var slot = cut.Pot.Slot;
            if (simulator.PocketOf(slot) == cut.Pocket)
            {
                tally.Pots++;
                if (isMet && simulator.PocketOf(0) is null) tally.Both++;
            }
            else
            {
                var thick = MissedThick(record, cut);
                if (thick) tally.Thick++;
                else tally.Thin++;
                if (simulator.PocketOf(slot) is null) (thick ? tally.ThickRests : tally.ThinRests).Add(new(0, simulator.X(slot), simulator.Y(slot)));
            }
        }
        return tally;
    }

    /// <summary>Whether the ball that the white strikes set off on the thick side of the potting line: turned less than the cut asks.</summary>
    internal static bool MissedThick(ShotRecord record, in Cut cut)
    {
        foreach (var piece in record.Pieces)
        {
            if (piece.Ball != cut.Pot.Struck) continue;
            var off = Math.IEEERemainder(Math.Atan2(piece.Vy, piece.Vx) * 180 / Math.PI - cut.PotDegrees, 360);
            return cut.CutDegrees > 0 ? off < 0 : off > 0;
        }
        return false;
    }
}
