using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;

namespace DeepBaize.Web.Planning;

/// <summary>What is asked of a plan.</summary>
public sealed record PreferencesEntry
{
    public PlanTarget Target { get; init; }

    [Description("With the target score: what the break is to reach.")]
    public int Score { get; init; }
    public Risk Risk { get; init; } = Risk.Balanced;
    public bool PlainOnly { get; init; }
    public bool AvoidCannons { get; init; }

    [Description("The ball to be on after the first shot; null for any.")]
    public string? Next { get; init; }

    [Description("Balls that are left for later, as long as another one is on.")]
    public IReadOnlyList<string> Later { get; init; } = [];

    [Description("Balls that the white is to stay clear of, unless it pots them.")]
    public IReadOnlyList<string> KeepOff { get; init; } = [];

    [Description("The white is to meet no cushion.")]
    public bool NoCushion { get; init; }

    [Description("No stroke harder than pace 4.")]
    public bool SoftOnly { get; init; }

    [Description("Follow before stun and screw where it costs little.")]
    public bool FollowFirst { get; init; }

    /// <exception cref="InputException">A wish that cannot be had on this table.</exception>
    public PlanPreferences Checked(Situation situation)
    {
        var checks = new Checks("preferences");
        var wishes = new PlanPreferences(Target, Score, Risk, PlainOnly, AvoidCannons)
        {
            Next = Next is null ? null : Named([Next], "next").Select(b => (Ball?)b).FirstOrDefault(),
            Later = Named(Later, "later"),
            KeepOff = Named(KeepOff, "keepOff"),
            NoCushion = NoCushion,
            SoftOnly = SoftOnly,
            FollowFirst = FollowFirst,
        };
        checks.ThrowIfAny();
        return wishes.Checked(situation);

        List<Ball> Named(IReadOnlyList<string> ids, string field)
        {
            var balls = new List<Ball>();
            foreach (var id in ids)
                if (Ball.TryParse(id, out var ball))
                    balls.Add(ball);
                else
                    checks.That(false, field, $"There is no ball “{id}”.", "red-1 to red-15, yellow … black");
            return balls;
        }
    }
}

/// <summary>A position to plan a break from, and for whom.</summary>
public sealed record PlanRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();
    public PreferencesEntry Preferences { get; init; } = new();
}

/// <summary>A position, who plays, and which ball is meant.</summary>
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

/// <summary>One step of the map: the places that are worth at least this share of the best.</summary>
public sealed record BandResult(double Share, IReadOnlyList<IReadOnlyList<PlaceResult>> Outlines);

/// <summary>Where to be for the next ball: even steps of the best place's worth, the outlines in m.</summary>
public sealed record MapResult(string On, PlaceResult? Best, IReadOnlyList<BandResult> Bands);

/// <summary>The stroke that is set up, played.</summary>
public sealed record PlayOnRequest
{
    public required PositionContent Content { get; init; }

    [Description("Null: as it is set up. thick or thin: the pot is missed on that side.")]
    public string? Missed { get; init; }

    [Description("What the other player chooses if it is a foul.")]
    public AfterFoul AfterFoul { get; init; }

    [Description("How the foul that the frame still holds is answered: then no stroke is played. Null otherwise.")]
    public AfterFoul? Answer { get; init; }

    [Description("Who plays first at a black that was spotted again, 0 or 1, by lot: then no stroke is played. Null otherwise.")]
    public int? FirstPlayer { get; init; }
}

/// <summary>What follows a foul (the Official Rules, Section 3, rules 13 and 14).</summary>
public enum AfterFoul
{
    /// <summary>The other player plays, from where the balls stopped.</summary>
    Play,

    /// <summary>The offender plays again, from where the balls stopped.</summary>
    PlayAgain,

    /// <summary>A miss is called: the balls are put back, and the offender plays again from there.</summary>
    PutBack,
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
            .MapPost("/plan", (PlanRequest request, HttpContext http, SearchDesk desk) =>
            {
                var player = request.Player.Checked();
                var content = CheckedContent.Of(request.Content, player);
                var situation = content.ToSituation();
                var preferences = request.Preferences.Checked(situation);
                PlansProgress Of(PlanProgress p) => PlansProgress.Of(p, request.Content, situation.Layout);
                return desk.Plan<PlansProgress>(
                    http,
                    new("plan", BreakPlanner.Stages),
                    wait => new(wait, 0, 0, 1, "win", 0, [], []),
                    (tell, end) =>
                    {
                        var progress = new Teller<PlanProgress>(p =>
                        {
                            if (p.Share < 1)
                                tell(Of(p));
                        });
                        tell(Of(BreakPlanner.Solve(situation, preferences, player, content.Shape, desk.Gate, progress, end)));
                    }
                );
            })
            .WithName("plan")
            .WithSummary("Plans a break: a stream of PlansProgress, ended by closing the request")
            .Produces<PlansProgress>(200, "text/event-stream");
        group
            .MapPost("/frame", (PlayOnRequest request) => FrameResult.Of(CheckedContent.Of(request.Content).ToSituation()))
            .WithName("frame")
            .WithSummary("What the score and the balls say: ball on, points left, lead, what is needed");
        group
            .MapPost("/next-balls", NextBallsOf)
            .WithName("nextBalls")
            .WithSummary("Which ball to play for: each ball worth it, with the simplest stroke that leaves it on");
        group
            .MapPost("/position-map", Map)
            .WithName("positionMap")
            .WithSummary("Where to be for the next ball: outlines of places by what they are worth");
        group.MapPost("/position-at", At).WithName("positionAt").WithSummary("What one place of the white is worth, and why");
        group.MapPost("/play-on", PlayOn).WithName("playOn").WithSummary("The table after the stroke that is set up, by the rules");
    }

    private static async Task<NextBallsResult> NextBallsOf(PlanRequest request, HttpContext http, SearchDesk desk)
    {
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var situation = content.ToSituation();
        var preferences = request.Preferences.Checked(situation);
        if (situation.Frame.IsOver || !situation.OnSlots().Any())
            throw new InputException("content.balls", "There is no ball on.", "at least one ball that is on, and a frame under way");
        var answer = await desk.JudgeAsync(http, workers => NextBalls.Find(situation, preferences, player, content.Shape, workers));
        return new(answer.Unit, [.. answer.Balls.Select(b => NextBallResult.Of(b, situation.Layout))]);
    }

    /// <summary>The situation that the map is of, and the ball that is meant.</summary>
    private static (Situation Situation, TableShape Shape, Func<Ball, bool>? Only) Meant(MapRequest request)
    {
        var content = CheckedContent.Of(request.Content);
        var situation = content.ToSituation();
        if (request.AfterPot && content.Pot is not null && !situation.Frame.IsOver)
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

    private static async Task<MapResult> Map(MapRequest request, HttpContext http, SearchDesk desk)
    {
        var (situation, shape, only) = Meant(request);
        var player = request.Player.Checked();
        var map = await desk.JudgeAsync(http, workers => PositionMap.Of(situation, player, shape, PlanPreferences.Default, workers, only));
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
        // Any place on the bed is asked for, with the balls on it; beyond the noses only where a ball can rest, as in a pocket's mouth.
        var (checks, place) = (new Checks(), new Vec2(request.X ?? double.NaN, request.Y ?? double.NaN));
        if (!Dimensions.Bed.Contains(place))
            Layout.CheckPlace(place, "", "The white", shape, checks);
        checks.ThrowIfAny();
        var lines = new PotLines(situation.Layout, shape);
        return QualityResult.Of(new Evaluation(player, PlanPreferences.Default).At(situation, lines, place, only: only), situation.Layout);
    }

    private static PlayOnResult PlayOn(PlayOnRequest request)
    {
        var content = CheckedContent.Of(request.Content);
        var situation = content.ToSituation();
        if (request.FirstPlayer is { } first)
            return Without(LotDrawn(situation, first), request.Content);
        if (request.Answer is { } answer)
            return Without(Answered(situation, answer), request.Content);
        var stroke = content.Aimed()?.Stroke ?? content.Stroke;
        if (request.Missed is { } side)
        {
            if (side is not ("thick" or "thin"))
                throw new InputException("missed", "There is no such side.", "thick, thin");
            stroke = stroke with
            {
                AimDegrees = NearMiss.Aim(
                    situation.Layout,
                    stroke,
                    Cut.Of(content.Layout, content.ThePot(), content.Shape),
                    thick: side == "thick",
                    content.Shape
                ),
            };
        }
        var played = content.PlayedFrom(situation, stroke, missCalled: request.AfterFoul == AfterFoul.PutBack);
        var leaves = Answered(played, request.AfterFoul);
        var potted = situation
            .Layout.Balls.Select(b => b.Ball)
            .Where(b => played.Leaves.Layout.SlotOf(b) < 0 || played.Ruling.Spotted.Contains(b));
        return new(
            Content: ContentOf(leaves, request.Content),
            Frame: FrameResult.Of(leaves),
            Points: played.Ruling.Points,
            Penalty: played.Ruling.Penalty,
            Fouls: played.Ruling.Fouls,
            Potted: [.. potted.Select(b => b.Id)],
            Spotted: [.. played.Ruling.Spotted.Select(b => b.Id)]
        );
    }

    /// <summary>The next table where no stroke was played.</summary>
    private static PlayOnResult Without(Situation leaves, PositionContent before) =>
        new(ContentOf(leaves, before), FrameResult.Of(leaves), 0, 0, [], [], []);

    private static Situation LotDrawn(Situation situation, int first)
    {
        var checks = new Checks();
        checks.Range("firstPlayer", first, 0, 1);
        checks.That(situation.Frame.AwaitsLot, "firstPlayer", "There is no lot to draw.", "null, unless the frame awaits the lot");
        checks.ThrowIfAny();
        return situation.PlaysFirst(first);
    }

    /// <summary>The table once the player at it has answered the foul that its frame holds.</summary>
    private static Situation Answered(Situation situation, AfterFoul answer)
    {
        var offence = situation.Frame.Offence;
        var checks = new Checks();
        checks.That(
            offence is not null && !situation.Frame.IsOver,
            "answer",
            "There is no foul to answer.",
            "null, unless the frame holds one"
        );
        checks.That(
            answer != AfterFoul.PutBack || offence is null or { IsMiss: true },
            "answer",
            "No miss was called: the balls stay where they are.",
            "play, playAgain"
        );
        checks.ThrowIfAny();
        return answer switch
        {
            AfterFoul.PutBack => situation.Replay(),
            AfterFoul.PlayAgain => situation.PlayAgain(),
            _ => situation,
        };
    }

    /// <summary>The content for the next stroke.</summary>
    private static PositionContent ContentOf(Situation leaves, PositionContent before) =>
        before with
        {
            Balls = [.. leaves.Layout.Balls.Select(BallEntry.Of)],
            Frame = FrameEntries.Of(leaves),
            Stroke = new StrokeEntry { Pace = before.Stroke.Pace },
        };

    /// <summary>The table once the other player has chosen what follows.</summary>
    private static Situation Answered(PlayedStroke played, AfterFoul choice)
    {
        if (choice == AfterFoul.Play || played.Leaves.Frame.IsOver)
            return played.Leaves;
        if (!played.Ruling.IsFoul || played.Leaves.Frame.AwaitsLot)
            throw new InputException("afterFoul", "There is no foul to answer.", "play");
        return choice == AfterFoul.PutBack ? played.Leaves.Replay() : played.Leaves.PlayAgain();
    }
}
