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
    public static LeaveResult Of(in Leave l, Layout layout) =>
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
    Estimate Value,
    Estimate Win,
    bool IsLevel,
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
    Estimate Value,
    Estimate Win,
    bool IsLevel,
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
    Estimate Value,
    Estimate Win,
    bool IsLevel,
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

/// <summary>An event of the stream: pots and safeties, or escapes, best first, and the verdict so far.</summary>
/// <param name="Wait">Only while it cannot begin yet.</param>
/// <param name="Share">Of the work, 0–1; 1 is the last event.</param>
/// <param name="Looked">Of the strokes looked at on an ordinary table, the share that was.</param>
/// <param name="White">Where the white is placed, if it is in hand: pots and escapes are played from there; m.</param>
/// <param name="SafetyWhite">Where it is placed for the safeties; m.</param>
/// <param name="Margin">Of the best pot over the best safety, points.</param>
/// <param name="IsLevel">Whether neither of these two is apart from the other.</param>
/// <param name="IsByFrame">The score is such that the lines are ranked by the chance to win the frame.</param>
public sealed record DecideProgress(
    SearchWait? Wait,
    long Examined,
    double Share,
    double Looked,
    PlaceResult? White,
    PlaceResult? SafetyWhite,
    bool IsSnookered,
    IReadOnlyList<AttackResult> Attacks,
    IReadOnlyList<SafetyResult> Safeties,
    IReadOnlyList<EscapeResult> Escapes,
    Estimate? Margin,
    bool IsLevel,
    Estimate? WinWithPot,
    Estimate? WinWithSafety,
    bool IsByFrame,
    int SnookersRequired,
    string? Touching
) : ISearchProgress
{
    /// <summary>Before there is a place for it, or anything to tell.</summary>
    public static DecideProgress Waiting(SearchWait? wait) =>
        new(
            wait,
            Examined: 0,
            Share: 0,
            Looked: 1,
            White: null,
            SafetyWhite: null,
            IsSnookered: false,
            Attacks: [],
            Safeties: [],
            Escapes: [],
            Margin: null,
            IsLevel: false,
            WinWithPot: null,
            WinWithSafety: null,
            IsByFrame: false,
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
            White: d.White is { } white ? PlaceResult.Of(white) : null,
            SafetyWhite: d.SafetyWhite is { } safe ? PlaceResult.Of(safe) : null,
            IsSnookered: d.IsSnookered,
            Attacks: [.. d.Attacks.Select(a => AttackOf(a, layout))],
            Safeties: [.. d.Safeties.Select(s => SafetyOf(s, layout))],
            Escapes: [.. d.Escapes.Select(e => EscapeOf(e, layout, kept))],
            Margin: d.Verdict.Margin,
            IsLevel: d.Verdict.IsLevel,
            WinWithPot: d.Verdict.WinWithPot,
            WinWithSafety: d.Verdict.WinWithSafety,
            IsByFrame: d.Verdict.IsByFrame,
            SnookersRequired: d.Verdict.SnookersRequired,
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
            Value: a.Value,
            Win: a.Win,
            IsLevel: a.IsLevel,
            BreakEven: a.BreakEven,
            Part: a.Part
        );

    /// <summary>A stroke that is aimed freely, for there is no pot to aim by.</summary>
    internal static StrokeEntry Free(in Stroke s) =>
        new()
        {
            Aim = Math.Round(Math.IEEERemainder(s.AimDegrees, 360), 4),
            Side = s.SideTips,
            Height = s.HeightTips,
            Pace = Math.Round(s.Pace, 3),
            Elevation = s.ElevationDegrees,
            Free = true,
        };

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
            Stroke: Free(s.Aim.Stroke),
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
            Value: s.Value,
            Win: s.Win,
            IsLevel: s.IsLevel,
            Leave: LeaveResult.Of(s.Leaves.Meant, s.Leaves.After.Layout),
            WhitePath: [.. s.Drawing.WhitePath.Select(PointEntry.Of)],
            BallPath: [.. s.Drawing.BallPath.Select(PointEntry.Of)],
            WhiteSpread: Spread(s.Drawing.WhiteRests),
            BallSpread: Spread(s.Drawing.BallRests),
            PotLeftWithSide: s.PotLeftWithSide
        );

    private static EscapeResult EscapeOf(EscapeOption e, Layout layout, IReadOnlyDictionary<string, CorrectionResult> corrections)
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
            Stroke: Free(aim.Stroke),
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
            Value: e.Value,
            Win: e.Win,
            IsLevel: e.IsLevel,
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
