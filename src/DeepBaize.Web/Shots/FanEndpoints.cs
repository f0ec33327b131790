using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Shots;

/// <summary>Which knob of the stroke is turned, and how far.</summary>
public sealed record FanRequest
{
    public required PositionContent Content { get; init; }
    public required FanKind Kind { get; init; }
    public PlayerEntry Player { get; init; } = new();

    [Description("Settings; without them a few usual ones around the stroke's own. Not of routes and errors.")]
    public FanRange? Range { get; init; }

    [Description("Whether the aim stays as it is, so that the pot may be missed; else it follows.")]
    public bool SameAim { get; init; }

    [Description("What the white is to do, if anything: lines that do it are told.")]
    public GoalEntry? Goal { get; init; }
}

/// <summary>A stroke, and the knob that is swept.</summary>
public sealed record LadderRequest
{
    public required PositionContent Content { get; init; }
    public required StrokeKnob Knob { get; init; }
    public PlayerEntry Player { get; init; } = new();

    [Description("Settings that are tried; without it all there are. Of the aim against the one that is set.")]
    public FanRange? Range { get; init; }
    public GoalEntry? Goal { get; init; }
}

/// <summary>A stroke, and the paces at which it is played.</summary>
public sealed record PacesRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();
    public FanRange Range { get; init; } = new(2, 9, 1);
    public GoalEntry? Goal { get; init; }
}

/// <summary>What comes of a stroke.</summary>
/// <param name="White">Where the white stops; null if it goes in or off the table.</param>
/// <param name="WhiteRests">Where the white stops, told from cushions and spots.</param>
/// <param name="First">The ball that the white meets first.</param>
/// <param name="Fullness">How full it meets that ball, 1 full to 0.</param>
/// <param name="Ball">Where that ball stops; null if it goes in.</param>
/// <param name="Cushions">The cushions that the white comes off after that, in order.</param>
/// <param name="RunsInto">The balls that it runs into after that, in order.</param>
/// <param name="Gap">The two balls between which it passes first after that.</param>
/// <param name="ComesBack">Whether it comes back behind the first ball or cushion that it met, as seen from where it set out.</param>
public sealed record StrokeEndResult(
    PlaceResult? White,
    WhereaboutsResult? WhiteRests,
    string? WhitePocket,
    string? First,
    double? Fullness,
    PlaceResult? Ball,
    WhereaboutsResult? BallRests,
    string? BallPocket,
    IReadOnlyList<string> Cushions,
    IReadOnlyList<string> RunsInto,
    IReadOnlyList<string>? Gap,
    bool ComesBack
)
{
    public static StrokeEndResult Of(StrokeEnd e, Layout layout)
    {
        string Id(int slot) => layout.Balls[slot].Ball.Id;
        return new(
            White: e.White is { } w ? PlaceResult.Rounded(w) : null,
            WhiteRests: e.White is { } rests ? WhereaboutsResult.Of(Whereabouts.Of(rests)) : null,
            WhitePocket: e.WhitePocket?.Name(),
            First: e.First > 0 ? Id(e.First) : null,
            Fullness: e.Fullness,
            Ball: e.Ball is { } b ? PlaceResult.Rounded(b) : null,
            BallRests: e.Ball is { } ball ? WhereaboutsResult.Of(Whereabouts.Of(ball)) : null,
            BallPocket: e.BallPocket?.Name(),
            Cushions: [.. e.Route.Cushions.Select(c => c.Name())],
            RunsInto: [.. e.Route.Balls.Select(Id)],
            Gap: e.Gap is { } gap ? [Id(gap.One), Id(gap.Other)] : null,
            ComesBack: e.ComesBack
        );
    }
}

/// <summary>One line of a fan: the stroke with one thing changed, and what it does.</summary>
/// <param name="Key">stun, follow or screw for a route, else the change, such as +0.5; of a butt its degrees; of errors aim+0.5.</param>
/// <param name="Aim">Degrees.</param>
/// <param name="Side">Tips.</param>
/// <param name="Height">Tips.</param>
/// <param name="Elevation">Degrees.</param>
/// <param name="Potted">Whether the chosen ball goes in; null without a pot.</param>
/// <param name="Points">The white's way.</param>
/// <param name="BallPoints">The way of the ball to be potted, or without one of the ball that is met first.</param>
public sealed record FanLineResult(
    string Key,
    double Aim,
    double Side,
    double Height,
    double Pace,
    double Elevation,
    bool? Potted,
    [property: Description("How the pot was missed; null if it went in, or there is none.")] PotMissResult? Miss,
    [property: Description("Where the aim is kept: the aim with which this stroke would pot the ball, degrees.")] double? AimThatPots,
    [property: Description("Where the aim is kept: how far apart the two lines are at the ghost ball, m, to the left positive.")]
        double? GhostGap,
    bool? DoesGoal,
    [property: Description("By how much the white passes the ball that the stroke as set meets first, m; null if it meets it.")]
        double? PassesBy,
    string? WhitePocket,
    StrokeEndResult End,
    IReadOnlyList<PointEntry> Points,
    IReadOnlyList<PointEntry> BallPoints
)
{
    public static FanLineResult Of(FanLine l, VariantQuestion question) =>
        new(
            Key: l.Key,
            Aim: l.Stroke.AimDegrees,
            Side: l.Stroke.SideTips,
            Height: l.Stroke.HeightTips,
            Pace: l.Stroke.Pace,
            Elevation: l.Stroke.ElevationDegrees,
            Potted: l.Potted,
            Miss: l.Miss is { } miss ? PotMissResult.Of(miss) : null,
            AimThatPots: l.AimThatPots,
            GhostGap: l.AimThatPots is { } pots && question.Cut is { } cut
                ? cut.CueBallDistance * Math.Tan((l.Stroke.AimDegrees - pots) * Math.PI / 180)
                : null,
            DoesGoal: l.DoesGoal,
            PassesBy: l.PassesBy,
            WhitePocket: l.End.WhitePocket?.Name(),
            End: StrokeEndResult.Of(l.End, question.Layout),
            Points: [.. l.WhitePath.Select(PointEntry.Of)],
            BallPoints: [.. l.BallPath.Select(PointEntry.Of)]
        );
}

/// <summary>What a rung of a ladder reaches.</summary>
/// <param name="First">The ball that the white meets first, where none is to be potted.</param>
/// <param name="Ball">The first ball that the white runs into after its first contact.</param>
/// <param name="Gap">The two balls between which it passes, where it runs into none.</param>
/// <param name="Cushions">Number of cushions that it comes off, where it neither runs into a ball nor passes between two.</param>
public sealed record ReachedResult(
    bool? Potted,
    string? InOff,
    string? First,
    string? Ball,
    IReadOnlyList<string>? Gap,
    int Cushions,
    bool? DoesGoal
)
{
    public static ReachedResult Of(Reached r, Layout layout)
    {
        string? Id(int slot) => slot > 0 ? layout.Balls[slot].Ball.Id : null;
        return new(
            r.Potted,
            r.InOff?.Name(),
            Id(r.First),
            Id(r.Ball),
            r.Gap is { } gap ? [Id(gap.One)!, Id(gap.Other)!] : null,
            r.Cushions,
            r.DoesGoal
        );
    }
}

/// <summary>Settings of the knob next to one another that reach one thing.</summary>
/// <param name="What">Null where no aim pots the ball.</param>
public sealed record RungResult(double From, double To, ReachedResult? What);

/// <summary>The stroke at one pace.</summary>
/// <param name="Chance">Of the pot at the player's skill, the other balls out of the way; null without a pot.</param>
public sealed record PaceRowResult(FanLineResult Line, Estimate? Chance);

/// <summary>The stroke at several paces.</summary>
/// <param name="BackFrom">The softest pace from which on the white comes back; null if it does at all of them, or at none.</param>
public sealed record PacesResult(IReadOnlyList<PaceRowResult> Rows, double? BackFrom);

/// <summary>A pot at one setting and one pace.</summary>
/// <param name="Row">Part of the pocket, -1 thick to 1 thin, or side in tips.</param>
/// <param name="End">What comes of it; null if there is no aim.</param>
public sealed record PotCellResult(double Row, double Pace, bool Potted, StrokeEndResult? End);

/// <summary>A pot at one pace that is just missed on one side.</summary>
/// <param name="Ball">Where the object ball stops; null if it goes in elsewhere.</param>
/// <param name="White">Where the white stops; null if it goes in.</param>
public sealed record NearlyMissedResult(double Pace, bool IsThick, PlaceResult? Ball, WhereaboutsResult? BallRests, PlaceResult? White);

/// <summary>A pot with another height of the tip.</summary>
public sealed record PotSpinResult(double HeightTips, Estimate Chance, StrokeEndResult? End);

/// <summary>Where the white of a pot goes, by the part of the pocket and by side, at several paces.</summary>
public sealed record PotChartResult(
    IReadOnlyList<PotCellResult> ByPart,
    IReadOnlyList<PotCellResult> BySide,
    IReadOnlyList<NearlyMissedResult> Missed,
    IReadOnlyList<PotSpinResult> Spins
);

/// <summary>A stroke with one knob turned: as lines, as a ladder of what is reached, and as a table by pace.</summary>
public static class FanEndpoints
{
    public static void MapFans(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api").WithTags("Shots").ProducesProblem(400);
        group.MapPost("/fan", FanOf).WithName("fan").WithSummary("The stroke with one knob turned, or the three routes to its pot");
        group
            .MapPost("/shot/ladder", Ladder)
            .WithName("shotLadder")
            .WithSummary("One knob swept from end to end: what each setting reaches, and where one thing turns into the next");
        group
            .MapPost("/shot/chart", Chart)
            .WithName("shotChart")
            .WithSummary(
                "A pot by the part of the pocket and by side, at several paces: where the white goes, and the ball if it is missed"
            );
        group
            .MapPost("/shot/paces", Paces)
            .WithName("shotPaces")
            .WithSummary("The stroke at several paces: where balls stop, and the chance");
    }

    private static async Task<IReadOnlyList<FanLineResult>> FanOf(FanRequest request, HttpContext http, SearchDesk desk)
    {
        var (question, _) = Question(request.Content, request.Player, request.Goal, request.SameAim);
        if (request.Kind == FanKind.Routes && question.Cut is null)
            throw new InputException("content.stroke.pot", "No pot is chosen.", "a ball and a pocket");
        request.Range?.Checked();
        var lines = await desk.JudgeAsync(http, workers => Fan.Of(question, request.Kind, request.Range, workers));
        return [.. lines.Select(l => FanLineResult.Of(l, question))];
    }

    private static async Task<IReadOnlyList<RungResult>> Ladder(LadderRequest request, HttpContext http, SearchDesk desk)
    {
        var (question, _) = Question(request.Content, request.Player, request.Goal, false);
        var range = request.Range is { } asked
            ? asked.Checked(mostLines: MostSettings)
            : KnobLadder.UsualRange(request.Knob, question.Stroke);
        var rungs = await desk.JudgeAsync(http, workers => KnobLadder.Of(question, request.Knob, range, workers));
        return [.. rungs.Select(r => new RungResult(r.From, r.To, r.What is { } what ? ReachedResult.Of(what, question.Layout) : null))];
    }

    /// <summary>Largest number of settings of a ladder that is asked for.</summary>
    private const int MostSettings = 200;

    private static async Task<PacesResult> Paces(PacesRequest request, HttpContext http, SearchDesk desk)
    {
        var (question, player) = Question(request.Content, request.Player, request.Goal, false);
        var range = request.Range.Checked();
        var table = await desk.JudgeAsync(http, workers => PaceTable.Of(question, range, player, workers));
        return new([.. table.Rows.Select(r => new PaceRowResult(FanLineResult.Of(r.Line, question), r.Chance))], table.BackFrom);
    }

    /// <exception cref="InputException">No pot is chosen, or it is not possible.</exception>
    private static async Task<PotChartResult> Chart(JudgementRequest request, HttpContext http, SearchDesk desk)
    {
        var (question, player) = Question(request.Content, request.Player, null, false);
        if (question.Cut is not { CanBeAimed: true })
            throw new InputException("content.stroke.pot", "There is no pot to aim at.", "a ball and a pocket that it can go into");
        var chart = await desk.JudgeAsync(http, workers => PotChart.Of(question, player, workers));
        StrokeEndResult? End(StrokeEnd? e) => e is null ? null : StrokeEndResult.Of(e, question.Layout);
        IReadOnlyList<PotCellResult> Cells(IReadOnlyList<PotCell> cells) =>
            [.. cells.Select(c => new PotCellResult(c.Row, c.Pace, c.Potted, End(c.End)))];
        return new(
            Cells(chart.ByPart),
            Cells(chart.BySide),
            [
                .. chart.Missed.Select(m => new NearlyMissedResult(
                    m.Pace,
                    m.IsThick,
                    m.Ball is { } ball ? PlaceResult.Rounded(ball) : null,
                    m.Ball is { } rests ? WhereaboutsResult.Of(Whereabouts.Of(rests)) : null,
                    m.White is { } white ? PlaceResult.Rounded(white) : null
                )),
            ],
            [.. chart.Spins.Select(s => new PotSpinResult(s.HeightTips, s.Chance, End(s.End)))]
        );
    }

    /// <summary>The stroke of a position as a question about variants of it.</summary>
    internal static (VariantQuestion Question, Player Player) Question(
        PositionContent entry,
        PlayerEntry playerEntry,
        GoalEntry? goal,
        bool sameAim
    )
    {
        var player = playerEntry.Checked();
        var content = CheckedContent.Of(entry, player);
        var aimed = content.Aimed();
        return (
            new(
                content.Layout,
                aimed?.Stroke ?? content.Stroke,
                aimed?.Cut,
                content.Shape,
                goal?.ToGoal(content),
                KeepsAim: sameAim || content.IsFree || aimed is null,
                Butt: entry.Stroke.Elevation is null ? player : null
            ),
            player
        );
    }
}
