using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Planning;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Searches;

namespace DeepBaize.Web.Shots;

/// <summary>A position with its stroke, and who plays it.</summary>
public sealed record JudgementRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();

    [Description("Of a spread: what the white is to do, if anything.")]
    public GoalEntry? Goal { get; init; }
}

/// <summary>A ball in the way.</summary>
public sealed record ObstacleResult(
    string Ball,
    [property: Description("In the cue ball's way, else in the object ball's.")] bool OfCueBall
);

/// <summary>How the player gets at the cue ball.</summary>
public sealed record ReachResult(
    Stance Stance,
    double ElevationDegrees,
    string? Over,
    string? BridgeOver,
    [property: Description("By how much the errors of direction, sighting and tip grow.")] double ErrorFactor
)
{
    public static ReachResult Of(in Reach r) => new(r.Stance, r.ElevationDegrees, r.Over?.Id, r.BridgeOver?.Id, r.ErrorFactor);
}

/// <summary>A height of the tip at which the butt need be raised less.</summary>
public sealed record HigherResult(
    [property: Description("Of the tip above the centre, tips.")] double HeightTips,
    [property: Description("How high the butt must then be, degrees.")] double ElevationDegrees
);

/// <summary>One ball into one pocket. Clearances in m.</summary>
public sealed record PotOptionResult(
    CutResult Cut,
    double Pace,
    [property: Description("Of the tip, tips: as asked, or higher where a plain ball would need the butt raised.")] double HeightTips,
    double? AimDegrees,
    double ToleranceDegrees,
    double ToleranceMillimetres,
    [property: Description("Played at this pace, the other balls out of the way.")] Estimate Chance,
    [property: Description("On, and not apart from the likeliest by the strokes that were played.")] bool IsLevel,
    double? CueBallClearance,
    double? PotClearance,
    IReadOnlyList<ObstacleResult> Obstacles,
    ReachResult Reach
)
{
    /// <param name="best">The likeliest.</param>
    public static PotOptionResult Of(PotOption o, PotOption best, Layout layout)
    {
        static double? Finite(double clearance) => double.IsFinite(clearance) ? clearance : null;
        return new(
            Cut: CutResult.Of(o.Cut, layout, o.AimDegrees - o.Cut.AimDegrees),
            Pace: o.Pace,
            HeightTips: o.Stroke.HeightTips,
            AimDegrees: o.AimDegrees,
            ToleranceDegrees: o.Tolerance.Degrees,
            ToleranceMillimetres: o.Tolerance.Millimetres,
            Chance: o.Chance,
            IsLevel: o != best && o.Chance.Value > 0 && o.Chance.IsLevelWith(best.Chance),
            CueBallClearance: Finite(o.Clearances.CueBall),
            PotClearance: Finite(o.Clearances.Pot),
            Obstacles: [.. o.Obstacles.Select(b => new ObstacleResult(b.Ball.Id, b.OfCueBall))],
            Reach: ReachResult.Of(o.Reach)
        );
    }
}

/// <summary>What comes of a stroke when it is played many times with errors.</summary>
public sealed record SpreadAnswer(
    int Samples,
    Estimate? Pot,
    Estimate InOff,
    Estimate Kiss,
    [property: Description("In which the tip slips off the ball.")] Estimate Miscue,
    Estimate? MissThick,
    Estimate? MissThin,
    [property: Description("Share in which the white does what is wanted; null without a goal.")] Estimate? Wanted,
    [property: Description("Share in which it does so and the pot goes in.")] Estimate? Both,
    [property: Description("What it does to a pack; null if nothing.")] PackOpeningResult? Opens,
    [property: Description("Where the white stops on the average, of the strokes in which it stays on the table; m.")] MeanRest MeanRest,
    [property: Description("Outlines, each closed, of the smallest area in which the white stops 68 times of 100.")]
        IReadOnlyList<IReadOnlyList<PlaceResult>> Likely,
    [property: Description("Outlines of the smallest area in which the white stops 95 times of 100.")]
        IReadOnlyList<IReadOnlyList<PlaceResult>> Nearly,
    [property: Description("Where the object ball stops 68 of 100 times that it is missed thick.")]
        IReadOnlyList<IReadOnlyList<PlaceResult>> ThickLeaves,
    [property: Description("Where the object ball stops 68 of 100 times that it is missed thin.")]
        IReadOnlyList<IReadOnlyList<PlaceResult>> ThinLeaves
);

/// <summary>The pot with one side.</summary>
public sealed record SideChoiceResult(
    double SideTips,
    bool IsHelping,
    Estimate Chance,
    double AimDegrees,
    Arrival Arrival,
    Allowance Allowance,
    AimSeen Seen,
    [property: Description("Of a plant: from the line of centres of the two balls to the way of the second, degrees, + to the left.")]
        double? PairThrowDegrees
);

/// <summary>What is on, what small errors do, and what the other ways to play it are.</summary>
public static class JudgementEndpoints
{
    public static void MapJudgements(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api").WithTags("Shots").ProducesProblem(400);
        group.MapPost("/read", Read).WithName("read").WithSummary("Every ball into every pocket, judged at a skill, the likeliest first");
        group
            .MapPost("/spread", SpreadOf)
            .WithName("spread")
            .WithSummary(
                "Where the white may stop and how often the pot goes in, from strokes with a player's errors, as many as it takes"
            );
        group
            .MapPost("/sides", Sides)
            .WithName("sides")
            .WithSummary("The pot plain, and with a touch of side either way: what each costs and saves");
    }

    private static async Task<IReadOnlyList<PotOptionResult>> Read(JudgementRequest request, HttpContext http, SearchDesk desk)
    {
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var options = await desk.JudgeAsync(
            http,
            workers => TableReading.Read(content.Layout, content.Unraised, player, content.Shape, workers, OnIn(content))
        );
        return [.. options.Select(o => PotOptionResult.Of(o, options[0], content.Layout))];
    }

    /// <summary>Which balls may be played at; null where the balls and the frame that is said do not go together.</summary>
    internal static Func<Ball, bool>? OnIn(CheckedContent content)
    {
        try
        {
            return content.ToSituation().Frame.MayPlay;
        }
        catch (InputException)
        {
            return null;
        }
    }

    private static async Task<SpreadAnswer> SpreadOf(JudgementRequest request, HttpContext http, SearchDesk desk)
    {
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var aimed = content.Aimed();
        var goal = request.Goal?.ToGoal(content);
        var stroke = aimed?.Stroke ?? content.Stroke;
        var skill = player.Skill.Times(Reach.Of(content.Layout, stroke, player).ErrorFactor);
        var (spread, opens) = await desk.JudgeAsync(
            http,
            workers =>
                (
                    Spread.Sample(new(content.Layout, stroke, aimed?.Cut, skill, content.Shape, goal), workers),
                    PackOpening.Of(content.Layout, stroke, skill, content.Shape, workers)
                )
        );
        static IReadOnlyList<IReadOnlyList<PlaceResult>> Places(IReadOnlyList<IReadOnlyList<Vec2>> outlines) =>
            [.. outlines.Select(o => o.Select(PlaceResult.Of).ToList())];
        Estimate? IfPot(Estimate share) => aimed is null ? null : share;
        return new(
            Samples: spread.Samples,
            Pot: IfPot(spread.Odds.Pot),
            InOff: spread.Odds.InOff,
            Kiss: spread.Odds.Kiss,
            Miscue: spread.Odds.Miscue,
            MissThick: IfPot(spread.Odds.MissThick),
            MissThin: IfPot(spread.Odds.MissThin),
            Wanted: goal is null ? null : spread.Odds.Wanted,
            Both: goal is null ? null : IfPot(spread.Odds.Both),
            Opens: PackOpeningResult.Of(opens),
            MeanRest: spread.Mean,
            Likely: Places(spread.Outlines.Likely),
            Nearly: Places(spread.Outlines.Nearly),
            ThickLeaves: Places(spread.Outlines.ThickLeaves),
            ThinLeaves: Places(spread.Outlines.ThinLeaves)
        );
    }

    private static async Task<IReadOnlyList<SideChoiceResult>> Sides(JudgementRequest request, HttpContext http, SearchDesk desk)
    {
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var pot = content.ThePot();
        var choices = await desk.JudgeAsync(
            http,
            workers => SideChoice.Of(content.Layout, pot, content.Stroke, player, content.Shape, workers)
        );
        return
        [
            .. choices.Select(c => new SideChoiceResult(
                c.SideTips,
                c.IsHelping,
                c.Chance,
                c.AimDegrees,
                c.Arrival,
                c.Allowance,
                c.Seen,
                c.PairThrowDegrees
            )),
        ];
    }
}
