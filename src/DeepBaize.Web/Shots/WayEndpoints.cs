using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Escapes;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Shots;

/// <summary>What the white is to do: stop in a circle, or, if a ball is named, run into that.</summary>
public sealed record GoalEntry
{
    [Description("Of the circle, m.")]
    public double? X { get; init; }
    public double? Y { get; init; }
    public double? Radius { get; init; }
    [Description("The ball that the white is to run into.")]
    public string? Ball { get; init; }
    [Description("How full, 0 to 1, give or take 0.2; null for any.")]
    public double? Fullness { get; init; }
    [Description("Of the white at that contact, m/s.")]
    public double? Slowest { get; init; }
    public double? Fastest { get; init; }

    /// <exception cref="InputException">Not a goal, or one that cannot be.</exception>
    public Goal ToGoal(CheckedContent content)
    {
        if (Ball is null) return StopIn.Create(X ?? double.NaN, Y ?? double.NaN, Radius ?? double.NaN);
        var slot = Core.Table.Ball.TryParse(Ball, out var ball) ? content.Layout.SlotOf(ball) : -1;
        return Cannon.Create(slot, content.ThePot(), Fullness, Slowest ?? 0, Fastest ?? Cannon.FastestThereIs);
    }
}

public sealed record FreedomEntry
{
    [Description("Tips above centre.")]
    public double LowestTips { get; init; } = Freedom.Full.LowestTips;
    public double HighestTips { get; init; } = Freedom.Full.HighestTips;
    [Description("0: plain ball only.")]
    public double MostSideTips { get; init; } = Freedom.Full.MostSideTips;
    [Description("Pace.")]
    public double Softest { get; init; } = Freedom.Full.Softest;
    public double Hardest { get; init; } = Freedom.Full.Hardest;
    [Description("Whether the thick and the thin side of the pocket may be used too.")]
    public bool AnyPart { get; init; } = true;

    public Freedom Checked() => new Freedom(LowestTips, HighestTips, MostSideTips, Softest, Hardest, AnyPart).Checked();
}

public sealed record WaysRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();
    public required GoalEntry Goal { get; init; }
    public FreedomEntry Freedom { get; init; } = new();
}

/// <summary>Where the white ends, and the likeliest pot from there, if one is on. m.</summary>
public sealed record OutcomeResult(double X, double Y, bool InOff, bool IsMet, string? NextBall, string? NextPocket, double? NextChance);

/// <summary>A way to do it; see DeepBaize.Core.Shots.Way. Lengths in m.</summary>
public sealed record WayResult(
    StrokeEntry Stroke, Arrival Arrival, IReadOnlyList<string> Cushions, IReadOnlyList<string> Balls, string? Along, ReachResult Reach,
    double Pot, double Both, double InOff, double Kiss, int Samples, bool IsMet, double Off,
    OutcomeResult Exact, OutcomeResult Long, OutcomeResult Short, Sensitivity Sensitivity, IReadOnlyList<PointEntry> Points,
    [property: System.ComponentModel.Description("The way from the contact to where the white stops as it would be off mirrors; empty without a cushion, or where there is none.")] IReadOnlyList<PlaceResult> Mirror)
{
    public static WayResult Of(Way w, Layout layout, StrokeEntry from, TableShape shape)
    {
        string Id(int slot) => layout.Balls[slot].Ball.Id;
        static OutcomeResult Outcome(Outcome o) => new(o.X, o.Y, o.InOff, o.IsMet, o.Next?.Cut.ObjectBall.Id, o.Next?.Cut.Pocket.Name(), o.Next?.Chance);
        var stroke = new StrokeEntry
        {
            Aim = w.Stroke.AimDegrees, Side = Math.Round(w.Stroke.SideTips, 3), Height = Math.Round(w.Stroke.HeightTips, 3), Pace = Math.Round(w.Stroke.Pace, 3),
            Elevation = w.Stroke.ElevationDegrees, Pot = from.Pot! with { Part = w.Part },
        };
        return new(stroke, w.Arrival, [.. w.Route.Cushions.Select(c => c.Name())], [.. w.Route.Balls.Select(Id)], w.Along < 0 ? null : Id(w.Along), ReachResult.Of(w.Reach),
            w.Pot, w.Both, w.InOff, w.Kiss, w.Samples, w.IsMet, w.Off, Outcome(w.Exact), Outcome(w.Long), Outcome(w.Short), w.Sensitivity,
            [.. w.WhitePath.Select(PointEntry.Of)], Mirrored(w, shape));
    }

    private static IReadOnlyList<PlaceResult> Mirrored(Way w, TableShape shape) =>
        w.Route.Cushions.Count is 0 or > 4 || w.Route.Balls.Count > 0 || w.Exact.InOff ? []
            : [.. (MirrorAim.Of(w.Contact, (w.Exact.X, w.Exact.Y), w.Route.Cushions, shape)?.Points ?? []).Select(p => new PlaceResult(p.X, p.Y))];
}

/// <summary>An event of the stream: how far the search is, and the best ways so far, best first.</summary>
/// <param name="Strokes">Strokes played so far.</param>
/// <param name="Share">Of the work, 0–1; 1 is the last event.</param>
/// <param name="AsSet">The stroke as it is set up, judged by the same measure; in the first event, and null if it has no aim.</param>
public sealed record WaysProgress(long Strokes, double Share, IReadOnlyList<WayResult> Ways, WayResult? AsSet);

public static class WayEndpoints
{
    public static void MapWays(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/ways", (WaysRequest request, CancellationToken cancel) =>
            {
                var content = CheckedContent.Of(request.Content);
                var (player, skill) = request.Player.Checked();
                content.ThePot();
                // Everything is checked before the stream begins: after that there is no status to answer with.
                return TypedResults.ServerSentEvents(Search(content, request.Content.Stroke, request.Goal.ToGoal(content), request.Freedom.Checked(), skill, player, cancel), "ways");
            })
            .WithName("ways").WithTags("Shots").WithSummary("Ways to pot the ball and put the white there: a stream of WaysProgress, ended by closing the request")
            .Produces<WaysProgress>(200, "text/event-stream").ProducesProblem(400);

    private static IAsyncEnumerable<WaysProgress> Search(
        CheckedContent content, StrokeEntry from, Goal goal, Freedom freedom, Skill skill, Player player, CancellationToken cancel)
    {
        var (layout, pot, shape) = (content.Layout, content.ThePot(), content.Shape);
        WayResult Result(Way way) => WayResult.Of(way, layout, from, shape);
        return LongWork.Stream<WaysProgress>(tell =>
        {
            var asSet = content.IsFree ? null : WaySearch.Judge(layout, pot, goal, content.Stroke, skill, player, shape, cancel);
            tell(new(0, 0, [], asSet is null ? null : Result(asSet)));
            WaySearch.Solve(layout, pot, goal, content.Stroke, freedom, skill, player, shape,
                new Teller<WaySearchProgress>(p => tell(new(p.Strokes, p.Share, [.. p.Ways.Select(Result)], null))), cancel);
            return Task.CompletedTask;
        }, cancel);
    }
}
