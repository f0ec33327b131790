using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Shots;

namespace DeepBaize.Web.Planning;

public sealed record PreferencesEntry
{
    public PlanTarget Target { get; init; } = PlanTarget.MostPoints;

    [Description("With the target score: what the break is to reach.")]
    public int Score { get; init; }
    public Risk Risk { get; init; } = Risk.Balanced;
    public bool PlainOnly { get; init; }
    public bool AvoidCannons { get; init; }

    public PlanPreferences Checked(Situation situation) =>
        new PlanPreferences(Target, Score, Risk, PlainOnly, AvoidCannons).Checked(situation.Frame.Break, situation.Frame.HighestBreak);
}

public sealed record PlanRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();
    public PreferencesEntry Preferences { get; init; } = new();
}

public sealed record MapRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();

    [Description("The ball that is meant; red for any red, colour for any colour, null for any ball that is on.")]
    public string? Target { get; init; }

    [Description("As after the pot that is chosen, played as it is set up.")]
    public bool AfterPot { get; init; }

    [Description("For the worth of one place: where, m.")]
    public double? X { get; init; }
    public double? Y { get; init; }
}

public sealed record BandResult(double Share, IReadOnlyList<IReadOnlyList<PlaceResult>> Outlines);

/// <summary>Where to be for the next ball: even steps of the best place's worth, the outlines in m.</summary>
public sealed record MapResult(string On, PlaceResult? Best, IReadOnlyList<BandResult> Bands);

public sealed record PlayOnRequest
{
    public required PositionContent Content { get; init; }

    [Description("Null: as it is set up. thick or thin: the pot is missed on that side.")]
    public string? Missed { get; init; }
}

/// <summary>The table after a stroke, and how it was ruled.</summary>
/// <param name="Content">Balls, colours spotted, and frame; the stroke is laid aside.</param>
public sealed record PlayOnResult(
    PositionContent Content,
    FrameResult Frame,
    int Points,
    int Penalty,
    IReadOnlyList<FoulReason> Fouls,
    IReadOnlyList<string> Potted,
    IReadOnlyList<string> Spotted
);

public static class PlanEndpoints
{
    public static void MapPlanning(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api").WithTags("Planning").ProducesProblem(400);
        group
            .MapPost(
                "/plan",
                (PlanRequest request, PlanDesk desk, CancellationToken cancel) =>
                {
                    var content = CheckedContent.Of(request.Content);
                    var player = request.Player.Checked();
                    var situation = content.ToSituation();
                    var preferences = request.Preferences.Checked(situation);
                    return TypedResults.ServerSentEvents(
                        Plans(request.Content, content.Shape, situation, preferences, player, desk, cancel),
                        "plan"
                    );
                }
            )
            .WithName("plan")
            .WithSummary("Plans a break: a stream of PlansProgress, ended by closing the request")
            .Produces<PlansProgress>(200, "text/event-stream");
        group
            .MapPost("/frame", (PlayOnRequest request) => FrameResult.Of(CheckedContent.Of(request.Content).ToSituation()))
            .WithName("frame")
            .WithSummary("What the score and the balls say: ball on, points left, lead, what is needed");
        group
            .MapPost("/position-map", Map)
            .WithName("positionMap")
            .WithSummary("Where to be for the next ball: outlines of places by what they are worth");
        group.MapPost("/position-at", At).WithName("positionAt").WithSummary("What one place of the white is worth, and why");
        group.MapPost("/play-on", PlayOn).WithName("playOn").WithSummary("The table after the stroke that is set up, by the rules");
    }

    private static IAsyncEnumerable<PlansProgress> Plans(
        PositionContent from,
        TableShape shape,
        Situation situation,
        PlanPreferences preferences,
        Player player,
        PlanDesk desk,
        CancellationToken cancel
    )
    {
        PlansProgress Of(PlanProgress p) => PlansProgress.Of(p, from, situation.Layout);
        return desk.Stream<PlansProgress>(
            wait => new(wait, 0, 0, [], []),
            tell =>
            {
                var last = BreakPlanner.Solve(
                    situation,
                    preferences,
                    player,
                    shape,
                    desk.Gate,
                    new Teller<PlanProgress>(p =>
                    {
                        if (p.Share < 1)
                            tell(Of(p));
                    }),
                    cancel
                );
                tell(Of(last));
            },
            cancel
        );
    }

    /// <summary>The situation that the map is of, and the ball that is meant.</summary>
    private static (Situation Situation, TableShape Shape, Func<Ball, bool>? Only) Meant(MapRequest request)
    {
        var content = CheckedContent.Of(request.Content);
        var situation = content.ToSituation();
        if (request.AfterPot && content.Pot is not null)
        {
            var played = content.PlayedFrom(situation, content.Aimed()!.Value.Stroke);
            if (played.Ruling.Points > 0 && !played.Ruling.NextFrame.IsOver)
                situation = played.Leaves;
        }
        if (request.Target is null)
            return (situation, content.Shape, null);
        // Asked for by name, a ball is taken as on.
        if (request.Target is "red" or "colour")
            return (situation.Meaning(BallsOn.Named(request.Target, "target")), content.Shape, null);
        var slot = Ball.TryParse(request.Target, out var ball) ? situation.Layout.SlotOf(ball) : -1;
        if (slot < 1)
            throw new InputException(
                "target",
                "There is no such object ball on the table.",
                "an object ball that is on the table, red or colour"
            );
        return (
            situation.Meaning(
                ball.IsRed ? BallOn.Red
                : situation.Frame.Reds > 0 ? BallOn.Colour
                : BallsOn.Only(ball)
            ),
            content.Shape,
            b => b == ball
        );
    }

    private static MapResult Map(MapRequest request, CancellationToken cancel)
    {
        var (situation, shape, only) = Meant(request);
        var player = request.Player.Checked();
        var map = PositionMap.Of(situation, player, shape, PlanPreferences.Default, only, cancel);
        return new(
            request.Target ?? situation.Frame.On.Name(),
            map.Best is { } best ? PlaceResult.Of(best) : null,
            [.. map.Bands.Select(b => new BandResult(b.Share, [.. b.Outlines.Select(o => o.Select(PlaceResult.Rounded).ToList())]))]
        );
    }

    private static QualityResult At(MapRequest request)
    {
        var (situation, shape, only) = Meant(request);
        var player = request.Player.Checked();
        var errors = new List<InputError>();
        if (request.X is not (>= 0 and <= Dimensions.Length))
            errors.Add(new("x", "There is no such place.", $"0 to {Dimensions.Length} m"));
        if (request.Y is not (>= 0 and <= Dimensions.Width))
            errors.Add(new("y", "There is no such place.", $"0 to {Dimensions.Width} m"));
        InputException.ThrowIfAny(errors);
        var lines = new PotLines(situation.Layout, shape);
        return QualityResult.Of(
            new Worth(player, PlanPreferences.Default).At(situation, lines, new(request.X!.Value, request.Y!.Value), only: only),
            situation.Layout
        );
    }

    private static PlayOnResult PlayOn(PlayOnRequest request)
    {
        var content = CheckedContent.Of(request.Content);
        var situation = content.ToSituation();
        if (situation.Frame.IsOver)
            throw new InputException("content.frame", "The frame is over.", "a frame under way");
        var stroke = content.Aimed()?.Stroke ?? content.Stroke;
        if (request.Missed is { } side)
        {
            if (side is not ("thick" or "thin"))
                throw new InputException("missed", "There is no such side.", "thick, thin");
            stroke = stroke with
            {
                AimDegrees = Misses.Aim(
                    situation.Layout,
                    stroke,
                    Cut.Of(content.Layout, content.ThePot(), content.Shape),
                    thick: side == "thick",
                    content.Shape
                ),
            };
        }
        var played = content.PlayedFrom(situation, stroke);
        var potted = situation
            .Layout.Balls.Select(b => b.Ball)
            .Where(b => played.Leaves.Layout.SlotOf(b) < 0 || played.Ruling.Spotted.Contains(b));
        var after = request.Content with
        {
            Balls = [.. played.Leaves.Layout.Balls.Select(BallEntry.Of)],
            Frame = FrameResult.EntryOf(played.Leaves.Frame),
            Stroke = new StrokeEntry { Pace = request.Content.Stroke.Pace },
        };
        return new(
            after,
            FrameResult.Of(played.Leaves),
            played.Ruling.Points,
            played.Ruling.Penalty,
            played.Ruling.Fouls,
            [.. potted.Select(b => b.Id)],
            [.. played.Ruling.Spotted.Select(b => b.Id)]
        );
    }
}
