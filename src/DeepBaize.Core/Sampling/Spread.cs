using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Sampling;

/// <summary>A stroke that is to be played many times with errors.</summary>
/// <param name="Pot">The pot that is meant, with its geometry, if any.</param>
/// <param name="Skill">At this reach.</param>
/// <param name="Goal">What the white is to do, if anything.</param>
public sealed record SpreadQuestion(Layout Layout, Stroke Stroke, Cut? Pot, Skill Skill, TableShape Shape, Goal? Goal = null);

/// <summary>Shares of the samples.</summary>
/// <param name="Pot">In which the chosen ball goes into the chosen pocket.</param>
/// <param name="MissThick">In which the ball was missed on the thick side.</param>
/// <param name="MissThin">In which it was missed on the thin side, or not hit.</param>
/// <param name="InOff">In which the white goes in.</param>
/// <param name="Kiss">In which the white or the chosen ball meets a third ball after their own contact.</param>
/// <param name="Wanted">In which the white does what is wanted of it, whether or not the pot goes in; 0 without a goal.</param>
/// <param name="Both">In which the ball goes in, the white stays on the table, and does it.</param>
public readonly record struct SpreadOdds(
    double Pot,
    double MissThick,
    double MissThin,
    double InOff,
    double Kiss,
    double Wanted,
    double Both
);

/// <summary>Closed polygons, m.</summary>
/// <param name="Likely">Of the smallest area that holds 68 % of the places where the white came to rest.</param>
/// <param name="Nearly">Of the smallest that holds 95 %.</param>
/// <param name="ThickLeaves">
/// Of the smallest area that holds 68 % of the places where the object ball stops after a thick miss; none if such misses are too few.
/// </param>
/// <param name="ThinLeaves">After a thin miss.</param>
public sealed record SpreadOutlines(
    IReadOnlyList<IReadOnlyList<Vec2>> Likely,
    IReadOnlyList<IReadOnlyList<Vec2>> Nearly,
    IReadOnlyList<IReadOnlyList<Vec2>> ThickLeaves,
    IReadOnlyList<IReadOnlyList<Vec2>> ThinLeaves
)
{
    public static SpreadOutlines None { get; } = new([], [], [], []);
}

/// <summary>What comes of a stroke as a player of some skill plays it: many times, with errors.</summary>
/// <param name="Samples">How many were played.</param>
/// <param name="Rests">Where the white came to rest, m, one for each sample in which it stayed on the table.</param>
public sealed record SpreadResult(int Samples, SpreadOdds Odds, IReadOnlyList<Vec2> Rests, SpreadOutlines Outlines);

/// <summary>Samples a stroke with a player's errors, on the table as it stands.</summary>
public static class Spread
{
    /// <summary>
    /// Played one after the other by one worker, with random numbers of their own: so the result does not depend on the number of cores.
    /// </summary>
    private const int Batch = 250;

    /// <summary>From fewer places an outline would be an accident.</summary>
    private const int FewestToOutline = 100;

    /// <param name="seed">The same seed gives the same samples.</param>
    /// <param name="workers">How many at once; −1 for all cores.</param>
    /// <param name="outlines">Whether the outlines are wanted.</param>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static SpreadResult Sample(
        SpreadQuestion question,
        int samples = 2000,
        int seed = 1,
        int workers = -1,
        bool outlines = true,
        CancellationToken cancel = default
    )
    {
        var tallies = new Tally[(samples + Batch - 1) / Batch];
        var cores = new ParallelOptions
        {
            MaxDegreeOfParallelism = workers < 0 ? Environment.ProcessorCount : workers,
            CancellationToken = cancel,
        };
        Parallel.For(
            0,
            tallies.Length,
            cores,
            i => tallies[i] = Play(question, Math.Min(Batch, samples - i * Batch), unchecked(seed * 7919 + i), cancel)
        );
        double Share(Func<Tally, int> count) => (double)tallies.Sum(count) / samples;
        var odds = new SpreadOdds(
            Pot: Share(t => t.Pots),
            MissThick: Share(t => t.Thick),
            MissThin: Share(t => t.Thin),
            InOff: Share(t => t.InOffs),
            Kiss: Share(t => t.Kisses),
            Wanted: Share(t => t.Wanted),
            Both: Share(t => t.Both)
        );
        List<Vec2> rests = [.. tallies.SelectMany(t => t.Rests)];
        return new(samples, odds, rests, outlines ? OutlinesOf(rests, tallies) : SpreadOutlines.None);
    }

    private static SpreadOutlines OutlinesOf(List<Vec2> rests, Tally[] tallies)
    {
        var density = new Density(rests, Dimensions.Bed);
        return new(density.Outline(0.68), density.Outline(0.95), Leaves(t => t.ThickRests), Leaves(t => t.ThinRests));

        IReadOnlyList<IReadOnlyList<Vec2>> Leaves(Func<Tally, List<Vec2>> of)
        {
            List<Vec2> places = [.. tallies.SelectMany(of)];
            return places.Count < FewestToOutline ? [] : new Density(places, Dimensions.Bed).Outline(0.68);
        }
    }

    private sealed class Tally
    {
        public int Pots,
            InOffs,
            Kisses,
            Thick,
            Thin,
            Wanted,
            Both;
        public readonly List<Vec2> Rests = [],
            ThickRests = [],
            ThinRests = [];
    }

    private static Tally Play(SpreadQuestion question, int samples, int seed, CancellationToken cancel)
    {
        var (layout, stroke, pot, skill, shape, goal) = question;
        var simulator = new Simulator(shape, Simulator.Coarse);
        var record = new ShotRecord();
        var random = new Random(seed);
        var tally = new Tally();
        var meant = pot?.Pot;
        for (var i = 0; i < samples; i++)
        {
            cancel.ThrowIfCancellationRequested();
            StrokeError.Draw(random, skill).Play(simulator, layout, stroke, record);

            if (simulator.PocketOf(0) is null)
                tally.Rests.Add(simulator.At(0));
            else
                tally.InOffs++;
            if (Kisses.First(record, meant, goal?.Meant ?? -1) is not null)
                tally.Kisses++;
            var isMet = goal is not null && goal.IsMet(record, simulator, layout);
            if (isMet)
                tally.Wanted++;
            if (pot is not { } cut)
                continue;
            var slot = cut.Pot.Slot;
            if (simulator.PocketOf(slot) == cut.Pocket)
            {
                tally.Pots++;
                if (isMet && simulator.PocketOf(0) is null)
                    tally.Both++;
            }
            else
            {
                var thick = MissedThick(record, cut);
                if (thick)
                    tally.Thick++;
                else
                    tally.Thin++;
                if (simulator.PocketOf(slot) is null)
                    (thick ? tally.ThickRests : tally.ThinRests).Add(simulator.At(slot));
            }
        }
        return tally;
    }

    /// <summary>
    /// Whether the ball that the white strikes set off on the thick side of the potting line: turned less than the cut asks.
    /// </summary>
    public static bool MissedThick(ShotRecord record, in Cut cut)
    {
        foreach (var piece in record.Pieces)
        {
            if (piece.Ball != cut.Pot.Struck)
                continue;
            var off = Math.IEEERemainder(Math.Atan2(piece.Vy, piece.Vx) * 180 / Math.PI - cut.PotDegrees, 360);
            return cut.CutDegrees > 0 ? off < 0 : off > 0;
        }
        return false;
    }
}
