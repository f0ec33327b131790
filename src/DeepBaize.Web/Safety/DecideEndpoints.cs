using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Escapes;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Safety;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Escapes;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Planning;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Shots;
using DeepBaize.Web.Simulation;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Safety;

public sealed record DecideRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();
    [Description("How well the other player strikes: tour, county, club or learner.")]
    public string Rival { get; init; } = "county";

    public Skill CheckedRival() => Skill.Named(Rival, "rival");
}

/// <summary>What is left to the other player; see DeepBaize.Core.Safety.Leave. Lengths in m, worth in points.</summary>
public sealed record LeaveResult(double Worth, string? Ball, string? Pocket, double Chance, bool IsSnookered, double Seen, double Distance, double ToCushion, bool IsInHand, string? HiddenBy, bool IsInJaws)
{
    public static LeaveResult Of(in Leave l, Layout layout) => new(l.Worth, l.Best.Pot is { } p ? layout.Balls[p.Line.Slot].Ball.Id : null, l.Best.Pot?.Line.Pocket.Name(), l.Best.Chance,
        l.IsSnookered, l.Seen, l.Distance, l.ToCushion, l.IsInHand, l.HiddenBy?.Id, l.IsInJaws);
}

/// <summary>A pot by both its misses; see DeepBaize.Core.Safety.Attack.</summary>
public sealed record AttackResult(ChoiceResult Choice, double Gain, double Thick, double ThickLeave, double Thin, double ThinLeave, double Value, double? BreakEven, double Part);

/// <summary>A safety; see DeepBaize.Core.Safety.Safety. Outlines hold two thirds of the places where the ball stops.</summary>
public sealed record SafetyResult(
    SafetyIdea Idea, string Ball, double Fullness, bool LeftSide, bool IsAway, StrokeEntry Stroke, IReadOnlyList<string> Cushions, IReadOnlyList<string> Balls, ReachResult Reach,
    double Mean, double WorstTenth, double Snooker, double PotLeft, double Foul, double Pots, double Baulk, double Tight, double Value, LeaveResult Leave,
    IReadOnlyList<PointEntry> WhitePath, IReadOnlyList<PointEntry> BallPath, IReadOnlyList<IReadOnlyList<PlaceResult>> WhiteSpread, IReadOnlyList<IReadOnlyList<PlaceResult>> BallSpread);

/// <summary>The plain aim as in mirrors; see DeepBaize.Core.Escapes.MirrorAim. m.</summary>
public sealed record MirrorResult(double AimDegrees, IReadOnlyList<PlaceResult> Points, double FromPocket, string Pocket, LegResult? Known, double Shift);

/// <summary>A way out of a snooker; see DeepBaize.Core.Escapes.Escape.</summary>
public sealed record EscapeResult(
    string Ball, IReadOnlyList<string> Cushions, bool OffJaw, bool Swerves, StrokeEntry Stroke, double WindowDegrees, double SoftestPace, double HardestPace,
    double Hit, double Fair, double LeaveIfHit, double PotLeft, int Penalty, double FreeBall, double GivenAway, double Value, ReachResult Reach,
    IReadOnlyList<PointEntry> Path, PlaceResult? Contact, double? FromPocket, string? Pocket, MirrorResult? Mirror, double? Correction,
    string Route, [property: Description("What trials on this table have taught, if any.")] KeptResult? Kept);

/// <summary>The mean of the corrections that were kept for these cushions, and the aim with it.</summary>
public sealed record KeptResult(double Along, int Trials, double AimDegrees);

public sealed record CorrectionEntry
{
    [Description("The cushions in order, by name, joined by dots.")]
    public required string Route { get; init; }
    [Description("Along the first cushion, towards the top or the green's side positive, m.")]
    public required double Along { get; init; }
}

public sealed record CorrectionResult(string Route, double Along, int Trials);

/// <summary>An event of the stream: pots and safeties, or escapes, best first, and the verdict so far.</summary>
/// <param name="Wait">Only while it cannot begin yet.</param>
/// <param name="Share">Of the work, 0–1; 1 is the last event.</param>
/// <param name="Margin">Of the best pot over the best safety, points.</param>
public sealed record DecideProgress(
    PlanWait? Wait, long Examined, double Share, bool IsSnookered, IReadOnlyList<AttackResult> Attacks, IReadOnlyList<SafetyResult> Safeties, IReadOnlyList<EscapeResult> Escapes,
    double? Margin, double? WinWithPot, double? WinWithSafety, int SnookersRequired, string? Touching)
{
    public static DecideProgress Of(DecisionProgress p, Layout layout, IReadOnlyDictionary<string, CorrectionResult> kept)
    {
        var d = p.Decision;
        return new(null, p.Examined, p.Share, d.IsSnookered, [.. d.Attacks.Select(a => Attack(a, layout))], [.. d.Safeties.Select(s => Safe(s, layout))], [.. d.Escapes.Select(e => Way(e, layout, kept))], d.Margin, d.WinWithPot, d.WinWithSafety, d.SnookersRequired, d.Touching?.Id);
    }

    private static AttackResult Attack(Attack a, Layout layout) =>
        new(ChoiceResult.Of(a.Choice, layout), a.Gain, a.Thick, a.ThickLeave, a.Thin, a.ThinLeave, a.Value, a.BreakEven, a.Part);

    internal static StrokeEntry Free(in Stroke s) =>
        new() { Aim = Math.Round(Math.IEEERemainder(s.AimDegrees, 360), 4), Side = s.SideTips, Height = s.HeightTips, Pace = Math.Round(s.Pace, 3), Elevation = s.ElevationDegrees, Free = true };

    /// <summary>The grid for a hundred places or so, m.</summary>
    private const double FewPoints = 0.05;

    private static IReadOnlyList<IReadOnlyList<PlaceResult>> Spread(IReadOnlyList<PathPoint> rests) =>
        rests.Count < 20 ? [] : [.. new Density(rests, FewPoints).Outline(0.68).Select(o => Contours.Simplified(o, 0.004).Select(Place).ToList())];

    private static PlaceResult Place(PathPoint p) => new(Math.Round(p.X, 4), Math.Round(p.Y, 4));

    private static SafetyResult Safe(Core.Safety.Safety s, Layout layout) => new(
        s.Idea, s.Ball.Id, s.Fullness, s.LeftSide, s.IsAway, Free(s.Stroke), [.. s.Route.Cushions.Select(c => c.Name())], [.. s.Route.Balls.Select(b => layout.Balls[b].Ball.Id)], ReachResult.Of(s.Reach),
        s.Mean, s.WorstTenth, s.Snooker, s.PotLeft, s.Foul, s.Pots, s.Baulk, s.Tight, s.Value, LeaveResult.Of(s.Leave, s.After.Layout),
        [.. s.WhitePath.Select(PointEntry.Of)], [.. s.BallPath.Select(PointEntry.Of)], Spread(s.WhiteRests), Spread(s.BallRests));

    private static EscapeResult Way(Escape e, Layout layout, IReadOnlyDictionary<string, CorrectionResult> corrections)
    {
        var from = e.Contact is { } c && e.Cushions.Count > 0 ? MirrorAim.FromPocketOf(c, e.Cushions[0]) : ((double Distance, Pocket Pocket)?)null;
        var route = string.Join('.', e.Cushions.Select(x => x.Name()));
        // The white's place on the first cushion moves by so much; the aim turns with it.
        var kept = e.Contact is { } on && corrections.GetValueOrDefault(route) is { } known
            ? new KeptResult(known.Along, known.Trials, e.Stroke.AimDegrees + TryAndCorrect.Turn((layout.White.X, layout.White.Y), on, known.Along) * 180 / Math.PI) : null;
        var mirror = e.Mirror is not { } m ? null : new MirrorResult(m.AimDegrees, [.. m.Points.Select(p => new PlaceResult(p.X, p.Y))], m.FromPocket, m.Pocket.Name(),
            m.Known is { } k ? new(k.From.X, k.From.Y, k.To.X, k.To.Y) : null, m.Shift);
        return new(e.Ball.Id, [.. e.Cushions.Select(x => x.Name())], e.OffJaw, e.Swerves, Free(e.Stroke), e.WindowDegrees, e.SoftestPace, e.HardestPace, e.Hit, e.Fair, e.LeaveIfHit, e.PotLeft, e.Penalty, e.FreeBall, e.GivenAway, e.Value,
            ReachResult.Of(e.Reach), [.. e.Path.Select(PointEntry.Of)], e.Contact is { } at ? new(at.X, at.Y) : null, from?.Distance, from?.Pocket.Name(), mirror, e.Correction, route, kept);
    }
}

public sealed record RivalLineResult(string Ball, string Pocket, double FromX, double FromY, double ToX, double ToY, double Chance, string? Blocker);

/// <summary>The table after the stroke that is set up, as the other player finds it.</summary>
public sealed record RivalViewResult(LeaveResult Leave, bool RivalAtTable, IReadOnlyList<BallEntry> Balls, IReadOnlyList<RivalLineResult> Lines, IReadOnlyList<PotOptionResult> Special);

public sealed record CorrectRequest
{
    public required PositionContent Content { get; init; }
    [Description("The ball that was meant.")]
    public required string Ball { get; init; }
    [Description("How far to the left of its middle the white passed, as it came, m.")]
    public double? Passed { get; init; }
    [Description("Instead: how far beside the expected place the white met the first cushion, towards the top or the green's side positive, m.")]
    public double? Along { get; init; }
}

public sealed record BlackBallRequest
{
    public IReadOnlyDictionary<string, double> Conditions { get; init; } = new Dictionary<string, double>();
    public PlayerEntry Player { get; init; } = new();
    [Description("How well the other player strikes: tour, county, club or learner.")]
    public string Rival { get; init; } = "county";
}

/// <summary>A first stroke at the re-spotted black; see DeepBaize.Core.Safety.Opening. m.</summary>
public sealed record OpeningResult(
    OpeningKind Kind, double WhiteX, double WhiteY, StrokeEntry Stroke, double Fullness, IReadOnlyList<string> Cushions, double Safe, double PotLeft, double DoubleLeft, double Tight, double Foul, double Wins, int Rallies,
    IReadOnlyList<PointEntry> WhitePath, IReadOnlyList<PointEntry> BlackPath);

/// <summary>An event of the stream: the best opening of each kind so far.</summary>
public sealed record BlackBallEvent(PlanWait? Wait, long Examined, double Share, IReadOnlyList<OpeningResult> Openings);

public static class DecideEndpoints
{
    public static void MapSafety(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api").WithTags("Safety").ProducesProblem(400);
        group.MapPost("/decide", async (DecideRequest request, PlanDesk desk, DeepBaizeContext db, CancellationToken cancel) =>
            {
                var content = CheckedContent.Of(request.Content);
                var (player, skill) = request.Player.Checked();
                var situation = content.ToSituation();
                var kept = (await Corrections(db, cancel)).ToDictionary(c => c.Route);
                return TypedResults.ServerSentEvents(Decide(situation, content.Shape, skill, request.CheckedRival(), player, kept, desk, cancel), "decide");
            })
            .WithName("decide").WithSummary("Pots, safeties and, out of a snooker, escapes on one scale: a stream of DecideProgress, ended by closing the request").Produces<DecideProgress>(200, "text/event-stream");
        group.MapPost("/black-ball", (BlackBallRequest request, PlanDesk desk, CancellationToken cancel) =>
            {
                var (player, skill) = request.Player.Checked();
                var (shape, rival) = (new TableShape(Conditions.With(request.Conditions)), Skill.Named(request.Rival, "rival"));
                return TypedResults.ServerSentEvents(Openings(shape, skill, rival, player, desk, cancel), "openings");
            })
            .WithName("blackBall").WithSummary("The re-spotted black: openings compared on this table, and whether to go first: a stream of BlackBallEvent").Produces<BlackBallEvent>(200, "text/event-stream");
        group.MapPost("/leave", Leave).WithName("leave").WithSummary("What the stroke that is set up leaves, seen from the other side");
        group.MapGet("/escape/corrections", Corrections).WithName("listCorrections").WithSummary("What trials on this table have taught, by cushions").ProducesProblem(503);
        group.MapPost("/escape/corrections", Keep).WithName("keepCorrection").WithSummary("Keeps a correction as this table's").ProducesProblem(503);
        group.MapDelete("/escape/corrections/{route}", Forget).WithName("forgetCorrection").ProducesProblem(503);
        group.MapPost("/escape/correct", Correct).WithName("correctEscape").WithSummary("An escape was tried and missed: the next aim");
    }

    private static IAsyncEnumerable<DecideProgress> Decide(
        Situation situation, TableShape shape, Skill skill, Skill rival, Player player, IReadOnlyDictionary<string, CorrectionResult> kept, PlanDesk desk, CancellationToken cancel) =>
        desk.Stream<DecideProgress>(wait => new(wait, 0, 0, false, [], [], [], null, null, null, 0, null),
            tell => Decider.Solve(situation, skill, rival, player, shape, desk.Gate, new Teller<DecisionProgress>(p => tell(DecideProgress.Of(p, situation.Layout, kept))), cancel), cancel);

    private static IAsyncEnumerable<BlackBallEvent> Openings(TableShape shape, Skill skill, Skill rival, Player player, PlanDesk desk, CancellationToken cancel) =>
        desk.Stream<BlackBallEvent>(wait => new(wait, 0, 0, []),
            tell => tell(new(null, 0, 1, Results(BlackBall.Compare(skill, rival, player, shape, desk.Gate, new Teller<BlackBallProgress>(p => { if (p.Share < 1) tell(new(null, p.Examined, p.Share, Results(p.Openings))); }), cancel)))), cancel);

    private static IReadOnlyList<OpeningResult> Results(IReadOnlyList<Opening> openings) => [.. openings.Select(o => new OpeningResult(
        o.Kind, o.WhiteX, o.WhiteY, DecideProgress.Free(o.Stroke), o.Fullness, [.. o.Route.Cushions.Select(c => c.Name())], o.Safe, o.PotLeft, o.DoubleLeft, o.Tight, o.Foul, o.Wins, o.Rallies,
        [.. o.WhitePath.Select(PointEntry.Of)], [.. o.BlackPath.Select(PointEntry.Of)]))];

    private static RivalViewResult Leave(DecideRequest request, CancellationToken cancel)
    {
        var content = CheckedContent.Of(request.Content);
        var (player, _) = request.Player.Checked();
        var situation = content.ToSituation();
        var simulator = new Simulator(content.Shape);
        var record = new ShotRecord();
        default(StrokeError).Play(simulator, situation.Layout, content.Aimed()?.Stroke ?? content.Stroke, record);
        var played = situation.Play(simulator, record, content.Pot is { } pot ? situation.Layout.Balls[pot.Slot].Ball : null, content.Shape);
        var view = RivalView.Of(played.After, request.CheckedRival(), player, content.Shape, cancel);
        var layout = played.After.Layout;
        return new(LeaveResult.Of(view.Leave, layout), played.After.Frame.Turn != situation.Frame.Turn, [.. layout.Balls.Select(BallEntry.Of)],
            [.. view.Lines.Select(l => new RivalLineResult(l.Ball.Id, l.Line.Pocket.Name(), layout.Balls[l.Line.Slot].X, layout.Balls[l.Line.Slot].Y, l.Line.EndX, l.Line.EndY, l.Chance, l.Blocker?.Id))],
            [.. view.Special.Select(o => PotOptionResult.Of(o, layout))]);
    }

    private static Task<List<CorrectionResult>> Corrections(DeepBaizeContext db, CancellationToken cancel) =>
        db.Corrections.Where(c => c.OwnerId == User.LocalId).OrderBy(c => c.Route).Select(c => new CorrectionResult(c.Route, c.Along, c.Trials)).ToListAsync(cancel);

    /// <summary>One trial more for these cushions: the mean is kept.</summary>
    private static async Task<CorrectionResult> Keep(CorrectionEntry entry, DeepBaizeContext db, TimeProvider time, CancellationToken cancel)
    {
        const double most = 0.5;
        var names = entry.Route.Split('.');
        if (entry.Route.Length > EscapeCorrection.MaxRoute || names.Any(n => !Cushions.TryParse(n, out _))) throw new InputException("route", "There is no such order of cushions.", $"{Cushions.AllowedNames}, joined by dots");
        if (!(Math.Abs(entry.Along) <= most)) throw new InputException("along", $"{entry.Along} m is out of range.", $"-{most} to {most} m");
        var kept = await db.Corrections.SingleOrDefaultAsync(c => c.OwnerId == User.LocalId && c.Route == entry.Route, cancel);
        if (kept is null) db.Corrections.Add(kept = new() { OwnerId = User.LocalId, Route = entry.Route, Along = entry.Along, Trials = 1, UpdatedAt = time.GetUtcNow() });
        else (kept.Along, kept.Trials, kept.UpdatedAt) = ((kept.Along * kept.Trials + entry.Along) / (kept.Trials + 1), kept.Trials + 1, time.GetUtcNow());
        await db.SaveChangesAsync(cancel);
        return new(kept.Route, kept.Along, kept.Trials);
    }

    private static async Task<NoContent> Forget(string route, DeepBaizeContext db, CancellationToken cancel)
    {
        await db.Corrections.Where(c => c.OwnerId == User.LocalId && c.Route == route).ExecuteDeleteAsync(cancel);
        return TypedResults.NoContent();
    }

    private static CorrectedAim Correct(CorrectRequest request)
    {
        var content = CheckedContent.Of(request.Content);
        var slot = Ball.TryParse(request.Ball, out var ball) ? content.Layout.SlotOf(ball) : -1;
        return request.Along is { } along ? TryAndCorrect.NextByCushion(content.Layout, content.Stroke, along, content.Shape)
            : TryAndCorrect.Next(content.Layout, content.Stroke, slot, request.Passed ?? throw new InputException("passed", "It is not said what happened.", "passed, or along"), content.Shape);
    }
}
