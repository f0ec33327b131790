using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Sampling;

/// <summary>A stroke that is to be played many times with errors.</summary>
/// <param name="Pot">The pot that is meant, with its geometry, if any.</param>
/// <param name="Skill">At this reach.</param>
/// <param name="Goal">What the white is to do, if anything.</param>
public sealed record SpreadQuestion(Layout Layout, Stroke Stroke, Cut? Pot, Skill Skill, TableShape Shape, Goal? Goal = null);

/// <summary>Shares of the strokes.</summary>
/// <param name="Pot">In which the chosen ball goes into the chosen pocket.</param>
/// <param name="MissThick">In which the ball was missed on the thick side.</param>
/// <param name="MissThin">In which it was missed on the thin side, or not hit.</param>
/// <param name="InOff">In which the white goes in.</param>
/// <param name="Kiss">In which the white or the chosen ball meets a third ball after their own contact.</param>
/// <param name="Miscue">In which the tip slips off the ball.</param>
/// <param name="Wanted">In which the white does what is wanted of it, whether or not the pot goes in; 0 without a goal.</param>
/// <param name="Both">In which the ball goes in, the white stays on the table, and does it.</param>
public readonly record struct SpreadOdds(
    Estimate Pot,
    Estimate MissThick,
    Estimate MissThin,
    Estimate InOff,
    Estimate Kiss,
    Estimate Miscue,
    Estimate Wanted,
    Estimate Both
)
{
    /// <summary>Whether every share is known to an error.</summary>
    public bool AreKnownTo(double error) =>
        new[] { Pot, MissThick, MissThin, InOff, Kiss, Miscue, Wanted, Both }.All(share => share.IsShareKnownTo(error));
}

/// <summary>Where the white stops on the average, of the strokes in which it stays on the table; m.</summary>
public readonly record struct MeanRest(Estimate X, Estimate Y);

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
    /// <summary>No outlines.</summary>
    public static SpreadOutlines None { get; } = new([], [], [], []);
}

/// <summary>What comes of a stroke as a player of some skill plays it: many times, with errors.</summary>
/// <param name="Samples">How many were played.</param>
/// <param name="Rests">Where the white came to rest, m, one for each stroke in which it stayed on the table.</param>
public sealed record SpreadResult(int Samples, SpreadOdds Odds, MeanRest Mean, IReadOnlyList<Vec2> Rests, SpreadOutlines Outlines);

/// <summary>How often a stroke is played: until every share is known so well, in steps that double.</summary>
/// <param name="Fewest">Played in any case.</param>
/// <param name="Most">Then it ends, however well they are known.</param>
/// <param name="Error">Standard error that is enough.</param>
public sealed record SpreadEffort(int Fewest, int Most, double Error)
{
    /// <summary>Effort for reports: enough strokes for a smooth drawing, fewer where each stroke takes long.</summary>
    /// <param name="events">Of the simulator, for one stroke.</param>
    public static SpreadEffort Reported(int events) => new(Math.Clamp(EventsToTell / Math.Max(1, events), 256, 1024), 4096, EnoughError);

    private const int EventsToTell = 30_000;

    /// <summary>Standard error of a share that is enough to report.</summary>
    public const double EnoughError = 0.012;

    /// <summary>Returns the share of this effort that a gate allows.</summary>
    public SpreadEffort Within(FairGate gate) =>
        gate.WorkShare >= 1
            ? this
            : this with
            {
                Fewest = Math.Max(Least, (int)(Fewest * gate.WorkShare)),
                Most = Math.Max(Least, (int)(Most * gate.WorkShare)),
            };

    private const int Least = 32;

    /// <summary>Exactly a number of strokes.</summary>
    public static SpreadEffort Of(int strokes) => new(strokes, strokes, 0);
}

/// <summary>Plays a stroke with a player's errors, on the table as it stands.</summary>
public static class Spread
{
    /// <summary>Played one after the other by one worker, so that the result does not depend on how many there are.</summary>
    private const int Batch = 64;

    /// <summary>From fewer places an outline would be an accident.</summary>
    private const int FewestToOutline = 100;

    private static readonly ErrorStream Reporting = ErrorStream.Named("spread");

    /// <param name="effort">By default until every share is known well enough to report.</param>
    /// <param name="stream">Of the errors; one that reports, unless said otherwise.</param>
    /// <param name="outlines">Whether the outlines are wanted.</param>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static SpreadResult Sample(
        SpreadQuestion question,
        Workers workers,
        SpreadEffort? effort = null,
        ErrorStream? stream = null,
        bool outlines = true
    )
    {
        effort = (effort ?? SpreadEffort.Reported(EventsOf(question))).Within(workers.Gate);
        var scatter = Scatter.Of(question.Layout, question.Stroke, question.Skill, question.Shape, question.Pot?.Pot);
        var tallies = new List<Tally>();
        var all = new Tally();
        for (var (played, next) = (0, effort.Fewest); ; next = Math.Min(effort.Most, 2 * played))
        {
            var first = played;
            var batches = workers.InParallel((next - first + Batch - 1) / Batch, i =>
                Play(question, scatter, stream ?? Reporting, first + i * Batch, Math.Min(Batch, next - first - i * Batch), workers.Cancel)
            );
            foreach (var batch in batches)
                all.Add(batch);
            tallies.AddRange(batches);
            played = next;
            var odds = all.Odds;
            if (played < effort.Most && !odds.AreKnownTo(effort.Error))
                continue;
            List<Vec2> rests = [.. tallies.SelectMany(t => t.Rests)];
            return new(played, odds, all.Mean, rests, outlines ? OutlinesOf(rests, tallies) : SpreadOutlines.None);
        }
    }

    private static int EventsOf(SpreadQuestion question)
    {
        var simulator = new Simulator(question.Shape, Simulator.Coarse);
        question.Stroke.Play(simulator, question.Layout);
        return simulator.EventCount;
    }

    private static SpreadOutlines OutlinesOf(List<Vec2> rests, List<Tally> tallies)
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
        public readonly Sums Pots = new(),
            InOffs = new(),
            Kisses = new(),
            Miscues = new(),
            Thick = new(),
            Thin = new(),
            Wanted = new(),
            Both = new(),
            Stays = new(),
            X = new(),
            Y = new();
        public readonly List<Vec2> Rests = [],
            ThickRests = [],
            ThinRests = [];

        private IEnumerable<Sums> Figures => [Pots, InOffs, Kisses, Miscues, Thick, Thin, Wanted, Both, Stays, X, Y];

        public void Add(Tally other)
        {
            foreach (var (mine, its) in Figures.Zip(other.Figures))
                mine.Add(its);
        }

        public SpreadOdds Odds =>
            new(
                Pot: Pots.Share,
                MissThick: Thick.Share,
                MissThin: Thin.Share,
                InOff: InOffs.Share,
                Kiss: Kisses.Share,
                Miscue: Miscues.Share,
                Wanted: Wanted.Share,
                Both: Both.Share
            );

        public MeanRest Mean => new(X.For(Stays), Y.For(Stays));
    }

    private static Tally Play(SpreadQuestion question, Scatter scatter, ErrorStream stream, int first, int count, CancellationToken cancel)
    {
        var (layout, stroke, pot, _, shape, goal) = question;
        var simulator = new Simulator(shape, Simulator.Coarse);
        var record = new ShotRecord();
        var tally = new Tally();
        var meant = pot?.Pot;
        var potting = pot is { } aimedAt ? PottingDegrees(layout, stroke, aimedAt, simulator, record) : 0;
        for (var i = first; i < first + count; i++)
        {
            cancel.ThrowIfCancellationRequested();
            var error = scatter.Error(stream.At(i));
            error.Play(simulator, layout, stroke, record);

            var stays = simulator.IsOnTable(0);
            var rest = stays ? simulator.At(0) : default;
            if (stays)
                tally.Rests.Add(rest);
            tally.InOffs.Add(i, !stays);
            tally.Miscues.Add(i, error.IsMiscue);
            tally.Stays.Add(i, stays);
            tally.X.Add(i, rest.X);
            tally.Y.Add(i, rest.Y);
            tally.Kisses.Add(i, Kisses.First(record, meant, goal?.Meant ?? -1) is not null);
            var isMet = goal is not null && goal.IsMet(record, simulator, layout);
            tally.Wanted.Add(i, isMet);

            var (slot, isPotted) = pot is { } cut ? (cut.Pot.Slot, simulator.PocketOf(cut.Pot.Slot) == cut.Pocket) : (-1, false);
            var isMissed = slot > 0 && !isPotted;
            var isThick = isMissed && MissedThick(record, pot!.Value, potting);
            tally.Pots.Add(i, isPotted);
            tally.Both.Add(i, isPotted && isMet && stays);
            tally.Thick.Add(i, isThick);
            tally.Thin.Add(i, isMissed && !isThick);
            if (isMissed && simulator.IsOnTable(slot))
                (isThick ? tally.ThickRests : tally.ThinRests).Add(simulator.At(slot));
        }
        return tally;
    }

    /// <summary>
    /// Returns the direction, degrees, in which the struck ball leaves when the stroke pots: that of the stroke played without error if it
    /// pots, else the potting line. Off a cushion the two differ by degrees: the mirror's line is not where the ball has to go.
    /// </summary>
    public static double PottingDegrees(Layout layout, in Stroke stroke, in Cut cut, Simulator simulator, ShotRecord record)
    {
        stroke.Play(simulator, layout, record);
        if (simulator.PocketOf(cut.Pot.Slot) == cut.Pocket)
            foreach (var piece in record.Pieces)
                if (piece.Ball == cut.Pot.Struck)
                    return Math.Atan2(piece.Vy, piece.Vx) * 180 / Math.PI;
        return cut.PotDegrees;
    }

    /// <summary>Whether the ball that the white strikes sets off on the thick side: turned less than the pot needs.</summary>
    /// <param name="potting">Direction of the struck ball when the stroke pots, degrees (<see cref="PottingDegrees"/>).</param>
    public static bool MissedThick(ShotRecord record, in Cut cut, double potting)
    {
        foreach (var piece in record.Pieces)
        {
            if (piece.Ball != cut.Pot.Struck)
                continue;
            var off = Math.IEEERemainder(Math.Atan2(piece.Vy, piece.Vx) * 180 / Math.PI - potting, 360);
            return cut.CutDegrees > 0 ? off < 0 : off > 0;
        }
        return false;
    }
}
