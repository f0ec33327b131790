using System.ComponentModel;
using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Advice.Safety;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Planning;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Safety;

/// <summary>What is left to the other player. Lengths in m, worth in points.</summary>
public sealed record LeaveResult(
    double Worth,
    string? Ball,
    string? Pocket,
    double Chance,
    bool IsSnookered,
    double Seen,
    double Distance,
    double ToCushion,
    bool IsInHand,
    string? HiddenBy,
    bool IsInJaws
)
{
    public static LeaveResult Of(in Outlook l, Layout layout) =>
        new(
            Worth: l.Worth,
            Ball: l.Best.Pot is { } p ? layout.Balls[p.Line.Slot].Ball.Id : null,
            Pocket: l.Best.Pot?.Line.Pocket.Name(),
            Chance: l.Best.Chance,
            IsSnookered: l.Sight.IsSnookered,
            Seen: l.Sight.Seen,
            Distance: l.Sight.Distance,
            ToCushion: l.Lie.ToCushion,
            IsInHand: l.Lie.IsInHand,
            HiddenBy: l.Sight.HiddenBy?.Id,
            IsInJaws: l.Lie.IsInJaws
        );
}

/// <summary>A pot by both its misses.</summary>
public sealed record AttackResult(
    ChoiceResult Choice,
    double Seen,
    double Gain,
    Estimate Thick,
    Estimate ThickLeave,
    Estimate Thin,
    Estimate ThinLeave,
    double? BreakEven,
    double Part
);

/// <summary>A safety. Outlines hold two thirds of the places where the ball stops.</summary>
public sealed record SafetyResult(
    SafetyIdea Idea,
    string Ball,
    double Fullness,
    Fullness FullnessWord,
    bool LeftSide,
    double Seen,
    bool IsAway,
    StrokeEntry Stroke,
    IReadOnlyList<string> Cushions,
    IReadOnlyList<string> Balls,
    ReachResult Reach,
    Estimate Mean,
    Estimate WorstTenth,
    Estimate Snooker,
    Estimate PotLeft,
    Estimate Foul,
    Estimate Pots,
    Estimate Baulk,
    Estimate Tight,
    [property: Description("Mean of the other player's chance at the best ball left; 0 where none is.")] Estimate RivalChance,
    LeaveResult Leave,
    IReadOnlyList<PointEntry> WhitePath,
    IReadOnlyList<PointEntry> BallPath,
    IReadOnlyList<IReadOnlyList<PlaceResult>> WhiteSpread,
    IReadOnlyList<IReadOnlyList<PlaceResult>> BallSpread,
    [property: Description("Of a double kiss, the chance to leave a pot better than even with a touch of side; null of others.")]
        Estimate? PotLeftWithSide
);

/// <summary>The plain aim as in mirrors; m.</summary>
public sealed record MirrorResult(
    double AimDegrees,
    IReadOnlyList<PlaceResult> Points,
    double FromPocket,
    string Pocket,
    LegResult? Known,
    double Shift
)
{
    public static MirrorResult Of(MirrorAim m) =>
        new(
            AimDegrees: m.AimDegrees,
            Points: [.. m.Points.Select(PlaceResult.Of)],
            FromPocket: m.FromPocket,
            Pocket: m.Pocket.Name(),
            Known: m.Known is { } known ? LegResult.Of(known) : null,
            Shift: m.Shift
        );
}

/// <summary>A way out of a snooker.</summary>
public sealed record EscapeResult(
    string Ball,
    double Seen,
    IReadOnlyList<string> Cushions,
    bool OffJaw,
    bool Swerves,
    StrokeEntry Stroke,
    double WindowDegrees,
    double SoftestPace,
    double HardestPace,
    Estimate Hit,
    Estimate Fair,
    Estimate LeaveIfHit,
    Estimate PotLeft,
    int Penalty,
    Estimate FreeBall,
    Estimate GivenAway,
    ReachResult Reach,
    IReadOnlyList<PointEntry> Path,
    PlaceResult? Contact,
    double? FromPocket,
    string? Pocket,
    MirrorResult? Mirror,
    double? Correction,
    string Route,
    [property: Description("What trials on this table have taught, if any.")] KeptResult? Kept
);

/// <summary>The mean of the corrections that were kept for these cushions, and the aim with it.</summary>
public sealed record KeptResult(double Along, int Trials, double AimDegrees, uint Version);

/// <summary>Something that can be played. One of attack, safety and escape is there.</summary>
/// <param name="Id">Names the idea in every event of a search.</param>
/// <param name="Value">In the measure of the answer.</param>
/// <param name="Points">Points made, less those given and what the other player may expect: beside the measure, not in it.</param>
/// <param name="IsLevel">The strokes played cannot tell it from the best.</param>
public sealed record ProspectResult(
    string Id,
    ProspectKind Kind,
    Estimate Value,
    Estimate Points,
    bool IsLevel,
    AttackResult? Attack,
    SafetyResult? Safety,
    EscapeResult? Escape
);

/// <summary>What to play, and how near the call is.</summary>
/// <param name="BestId">The prospect to play.</param>
/// <param name="Margin">Of the best pot over the best safety or escape, in the measure of the answer.</param>
/// <param name="IsLevel">Whether neither of these two is apart from the other.</param>
/// <param name="WithPot">Value of the best pot.</param>
/// <param name="WithSafety">Value of the best safety or escape.</param>
public sealed record VerdictResult(string BestId, Estimate? Margin, bool IsLevel, Estimate? WithPot, Estimate? WithSafety)
{
    public static VerdictResult Of(Verdict v) => new(v.Best.Id, v.Margin, v.IsLevel, v.WithPot, v.WithSafety);
}

/// <summary>
/// An event of the stream: pots, safeties and escapes in one list, best first, and the verdict once all have been weighed.
/// </summary>
/// <param name="Wait">Only while it cannot begin yet.</param>
/// <param name="Share">Of the work, 0–1; 1 is the last event.</param>
/// <param name="Looked">Of the strokes looked at on an ordinary table, the share that was.</param>
/// <param name="Unit">The measure of values: win, the chance to win the frame, or points.</param>
/// <param name="ModelError">Standard error of the measure itself, beside that of the strokes played.</param>
/// <param name="White">Where the white is placed, if it is in hand: pots and escapes are played from there; m.</param>
/// <param name="SafetyWhite">Where it is placed for the safeties; m.</param>
/// <param name="Verdict">Null until pots and safeties have both been weighed.</param>
public sealed record DecideProgress(
    SearchWait? Wait,
    long Examined,
    double Share,
    double Looked,
    string Unit,
    double ModelError,
    PlaceResult? White,
    PlaceResult? SafetyWhite,
    bool IsSnookered,
    IReadOnlyList<ProspectResult> Prospects,
    VerdictResult? Verdict,
    int SnookersRequired,
    string? Touching
) : ISearchProgress<DecideProgress>
{
    /// <summary>Where the search is.</summary>
    public SearchStatus? Status { get; init; }

    /// <inheritdoc/>
    public DecideProgress With(SearchStatus status) => this with { Status = status };

    /// <summary>Before there is a place for it, or anything to tell.</summary>
    public static DecideProgress Waiting(SearchWait? wait) =>
        new(
            wait,
            Examined: 0,
            Share: 0,
            Looked: 1,
            Unit: "win",
            ModelError: 0,
            White: null,
            SafetyWhite: null,
            IsSnookered: false,
            Prospects: [],
            Verdict: null,
            SnookersRequired: 0,
            Touching: null
        );

    public static DecideProgress Of(DecisionProgress p, Layout layout, IReadOnlyDictionary<string, CorrectionResult> kept)
    {
        var d = p.Decision;
        return new(
            Wait: null,
            Examined: p.Examined,
            Share: p.Share,
            Looked: p.Looked,
            Unit: d.Unit,
            ModelError: d.ModelError,
            White: d.White is { } white ? PlaceResult.Of(white) : null,
            SafetyWhite: d.SafetyWhite is { } safe ? PlaceResult.Of(safe) : null,
            IsSnookered: d.IsSnookered,
            Prospects:
            [
                .. d.Prospects.Select(x => new ProspectResult(
                    x.Id,
                    x.Kind,
                    x.Value,
                    x.Points,
                    x.IsLevel,
                    x.Attack is { } a ? AttackOf(a, layout) : null,
                    x.Safety is { } s ? SafetyOf(s, layout) : null,
                    x.Escape is { } e ? EscapeOf(e, layout, kept) : null
                )),
            ],
            Verdict: d.Verdict is { } verdict ? VerdictResult.Of(verdict) : null,
            SnookersRequired: d.SnookersRequired,
            Touching: d.Touching?.Id
        );
    }

    private static AttackResult AttackOf(Attack a, Layout layout) =>
        new(
            Choice: ChoiceResult.Of(a.Choice, layout),
            Seen: a.Seen,
            Gain: a.Gain,
            Thick: a.Thick.Share,
            ThickLeave: a.Thick.Leave,
            Thin: a.Thin.Share,
            ThinLeave: a.Thin.Leave,
            BreakEven: a.BreakEven,
            Part: a.Part
        );

    /// <summary>The grid for a hundred places or so, m.</summary>
    private const double FewPoints = 0.05;

    private static IReadOnlyList<IReadOnlyList<PlaceResult>> Spread(IReadOnlyList<Vec2> rests) =>
        rests.Count < 20
            ? []
            :
            [
                .. new Density(rests, Dimensions.Bed, FewPoints)
                    .Outline(0.68)
                    .Select(o => Contours.Simplified(o, 0.004).Select(PlaceResult.Rounded).ToList()),
            ];

    private static SafetyResult SafetyOf(SafetyOption s, Layout layout) =>
        new(
            Idea: s.Idea,
            Ball: s.Aim.Ball.Id,
            Fullness: s.Aim.Fullness,
            FullnessWord: Fullnesses.Nearest(s.Aim.Fullness),
            LeftSide: s.Aim.LeftSide,
            Seen: s.Aim.Seen,
            IsAway: s.Aim.IsAway,
            Stroke: StrokeEntries.Free(s.Aim.Stroke),
            Cushions: [.. s.Route.Cushions.Select(c => c.Name())],
            Balls: [.. s.Route.Balls.Select(b => layout.Balls[b].Ball.Id)],
            Reach: ReachResult.Of(s.Aim.Reach),
            Mean: s.Leaves.Mean,
            WorstTenth: s.Leaves.WorstTenth,
            Snooker: s.Odds.Snooker,
            PotLeft: s.Odds.PotLeft,
            Foul: s.Odds.Foul,
            Pots: s.Odds.Pots,
            Baulk: s.Odds.Baulk,
            Tight: s.Odds.Tight,
            RivalChance: s.Odds.RivalChance,
            Leave: LeaveResult.Of(s.Leaves.Meant, s.Leaves.After.Layout),
            WhitePath: [.. s.Drawing.WhitePath.Select(PointEntry.Of)],
            BallPath: [.. s.Drawing.BallPath.Select(PointEntry.Of)],
            WhiteSpread: Spread(s.Drawing.WhiteRests),
            BallSpread: Spread(s.Drawing.BallRests),
            PotLeftWithSide: s.PotLeftWithSide
        );

    internal static EscapeResult EscapeOf(EscapeOption e, Layout layout, IReadOnlyDictionary<string, CorrectionResult> corrections)
    {
        var (aim, way) = (e.Aim, e.Way);
        var from =
            way.Contact is { } c && way.Cushions.Count > 0
                ? MirrorAim.FromPocketOf(c, way.Cushions[0])
                : ((double Distance, Pocket Pocket)?)null;
        var route = string.Join('.', way.Cushions.Select(x => x.Name()));
        return new(
            Ball: aim.Ball.Id,
            Seen: aim.Seen,
            Cushions: [.. way.Cushions.Select(x => x.Name())],
            OffJaw: way.OffJaw,
            Swerves: way.Swerves,
            Stroke: StrokeEntries.Free(aim.Stroke),
            WindowDegrees: aim.WindowDegrees,
            SoftestPace: aim.SoftestPace,
            HardestPace: aim.HardestPace,
            Hit: e.Odds.Hit,
            Fair: e.Odds.Fair,
            LeaveIfHit: e.Cost.LeaveIfHit,
            PotLeft: e.Odds.PotLeft,
            Penalty: e.Cost.Penalty,
            FreeBall: e.Odds.FreeBall,
            GivenAway: e.Cost.GivenAway,
            Reach: ReachResult.Of(aim.Reach),
            Path: [.. way.Path.Select(PointEntry.Of)],
            Contact: way.Contact is { } at ? PlaceResult.Of(at) : null,
            FromPocket: from?.Distance,
            Pocket: from?.Pocket.Name(),
            Mirror: e.Mirror is { } mirror ? MirrorResult.Of(mirror) : null,
            Correction: way.CorrectionOf(e.Mirror),
            Route: route,
            Kept: KeptFor(e, layout, corrections.GetValueOrDefault(route))
        );
    }

    /// <summary>The white's place on the first cushion moves by what was learnt; the aim turns with it.</summary>
    private static KeptResult? KeptFor(EscapeOption e, Layout layout, CorrectionResult? known)
    {
        if (e.Way.Contact is not { } contact || known is null)
            return null;
        var turn = TryAndCorrect.AimChange(layout.White.At, contact, known.Along);
        return new(known.Along, known.Trials, e.Aim.Stroke.AimDegrees + turn.Degrees, known.Version);
    }
}

/// <summary>A way of the other player's to a pocket, m.</summary>
public sealed record RivalLineResult(
    string Ball,
    string Pocket,
    double FromX,
    double FromY,
    double ToX,
    double ToY,
    double Chance,
    string? Blocker
)
{
    public static RivalLineResult Of(RivalLine l, Layout layout)
    {
        var (from, to) = (layout.Balls[l.Line.Slot].At, l.Line.End);
        return new(l.Ball.Id, l.Line.Pocket.Name(), from.X, from.Y, to.X, to.Y, l.Chance, l.Blocker?.Id);
    }
}

/// <summary>The table after the stroke that is set up, as the other player finds it.</summary>
public sealed record RivalViewResult(
    LeaveResult Leave,
    bool RivalAtTable,
    IReadOnlyList<BallEntry> Balls,
    IReadOnlyList<RivalLineResult> Lines,
    IReadOnlyList<PotOptionResult> Special
);
