using System.ComponentModel;
using DeepBaize.Core.Advice.Position;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Planning;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Shots;

/// <summary>Which knobs a search may turn, and how far.</summary>
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

/// <summary>A pot, what the white is to do after it, and who plays.</summary>
public sealed record WaysRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();
    public required GoalEntry Goal { get; init; }
    public FreedomEntry Freedom { get; init; } = new();

    [Description("Whether the likeliest other pots are tried too, beside the one that is chosen.")]
    public bool AnyPot { get; init; }
}

/// <summary>How the white runs into a ball after its first contact.</summary>
/// <param name="Speed">Of the white at that contact, m/s.</param>
/// <param name="Moved">Balls that the stroke moves, the white and the potted one apart.</param>
/// <param name="Stays">Whether the white stops near that contact if played without error.</param>
/// <param name="Sticks">Chance that it does; null until it has been sampled.</param>
/// <param name="Freed">Balls that had no way into any pocket and have one after the stroke, with the pockets.</param>
public sealed record RunsIntoResult(
    string Ball,
    double Fullness,
    Fullness FullnessWord,
    double Speed,
    IReadOnlyList<string> Moved,
    bool Stays,
    Estimate? Sticks,
    IReadOnlyList<FreedBallResult> Freed
)
{
    internal static RunsIntoResult Of(RunsInto into, Layout layout)
    {
        string Id(int slot) => layout.Balls[slot].Ball.Id;
        return new(
            Id(into.Slot),
            into.Fullness,
            Fullnesses.Nearest(into.Fullness),
            into.Speed,
            [.. into.Moved.Select(Id)],
            into.Stays,
            into.Sticks,
            [.. into.Freed.Select(f => new FreedBallResult(f.Ball.Id, [.. f.Pockets.Select(p => p.Name())]))]
        );
    }
}

/// <summary>A ball that a stroke frees.</summary>
/// <param name="Pockets">Pockets that it has a way into then.</param>
public sealed record FreedBallResult(string Ball, IReadOnlyList<string> Pockets);

/// <summary>Where the white ends, and the likeliest pot from there, if one is on. m.</summary>
public sealed record OutcomeResult(double X, double Y, bool InOff, bool IsMet, string? NextBall, string? NextPocket, Estimate? NextChance);

/// <summary>A way to do it. Lengths in m.</summary>
public sealed record WayResult(
    [property: Description("Names the way: the same while the search goes on; empty of the stroke that is set up.")] string Id,
    StrokeEntry Stroke,
    Arrival Arrival,
    IReadOnlyList<string> Cushions,
    IReadOnlyList<string> Balls,
    string? Along,
    [property: Description("The ball that the white runs into; null if none.")] RunsIntoResult? Into,
    ReachResult Reach,
    Estimate Pot,
    Estimate Both,
    Estimate InOff,
    Estimate Kiss,
    [property: Description("That the tip slips off the ball.")] Estimate Miscue,
    [property: Description("Not apart from the best by the strokes that were played.")] bool IsLevel,
    [property: Description("What it does to a pack; null if nothing.")] PackOpeningResult? Opens,
    bool IsMet,
    double Off,
    OutcomeResult Exact,
    OutcomeResult Long,
    OutcomeResult Short,
    Sensitivity Sensitivity,
    IReadOnlyList<PointEntry> Points,
    [property: System.ComponentModel.Description(
        "The way from the contact to where the white stops as it would be off mirrors; empty without a cushion, or where there is none."
    )]
        IReadOnlyList<PlaceResult> Mirror
)
{
    /// <param name="best">The best of the list.</param>
    /// <param name="pot">The pot that it is a way to play.</param>
    public static WayResult Of(Way w, Way best, Layout layout, PotEntry pot, TableShape shape)
    {
        string Id(int slot) => layout.Balls[slot].Ball.Id;
        static OutcomeResult Outcome(Outcome o) =>
            new(o.White.X, o.White.Y, o.InOff, o.IsMet, o.Next?.Cut.ObjectBall.Id, o.Next?.Cut.Pocket.Name(), o.Next?.Chance);
        var stroke = new StrokeEntry
        {
            Aim = w.Stroke.AimDegrees,
            Side = Math.Round(w.Stroke.SideTips, 3),
            Height = Math.Round(w.Stroke.HeightTips, 3),
            Pace = Math.Round(w.Stroke.Pace, 3),
            Elevation = w.Stroke.ElevationDegrees,
            Pot = pot with { Part = w.Part },
        };
        return new(
            Id: w.Id,
            Stroke: stroke,
            Arrival: w.Run.Arrival,
            Cushions: [.. w.Run.Route.Cushions.Select(c => c.Name())],
            Balls: [.. w.Run.Route.Balls.Select(Id)],
            Along: w.Run.Along < 0 ? null : Id(w.Run.Along),
            Into: w.Run.Into is { } into ? RunsIntoResult.Of(into, layout) : null,
            Reach: ReachResult.Of(w.Run.Reach),
            Pot: w.Odds.Pot,
            Both: w.Odds.Both,
            InOff: w.Odds.InOff,
            Kiss: w.Odds.Kiss,
            Miscue: w.Odds.Miscue,
            IsLevel: w != best && w.Odds.Both.IsLevelWith(best.Odds.Both),
            Opens: PackOpeningResult.Of(w.Opens),
            IsMet: w.Ends.IsMet,
            Off: w.Ends.Off,
            Exact: Outcome(w.Ends.Exact),
            Long: Outcome(w.Ends.Long),
            Short: Outcome(w.Ends.Short),
            Sensitivity: w.Ends.Sensitivity,
            Points: [.. w.Drawing.WhitePath.Select(PointEntry.Of)],
            Mirror: Mirrored(w, shape)
        );
    }

    private static IReadOnlyList<PlaceResult> Mirrored(Way w, TableShape shape)
    {
        var (route, end) = (w.Run.Route, w.Ends.Exact);
        if (route.Cushions.Count is 0 or > 4 || route.Balls.Count > 0 || end.InOff)
            return [];
        return [.. (MirrorAim.Of(w.Drawing.Contact, end.White, route.Cushions, shape)?.Points ?? []).Select(PlaceResult.Of)];
    }
}

/// <summary>An event of the stream: how far the search is, and the best ways so far, best first.</summary>
/// <param name="Strokes">Strokes played so far.</param>
/// <param name="Share">Of the work, 0–1; 1 is the last event.</param>
/// <param name="AsSet">
/// The stroke as it is set up, judged by the same measure; told once, when the search begins, and null if it has no aim.
/// </param>
/// <param name="Wait">While it waits for a place.</param>
public sealed record WaysProgress(long Strokes, double Share, IReadOnlyList<WayResult> Ways, WayResult? AsSet, SearchWait? Wait)
    : ISearchProgress<WaysProgress>
{
    long ISearchProgress<WaysProgress>.Examined => Strokes;

    /// <summary>Where the search is.</summary>
    public SearchStatus? Status { get; init; }

    /// <inheritdoc/>
    public WaysProgress With(SearchStatus status) => this with { Status = status };
}

public static class WayEndpoints
{
    public static void MapWays(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/ways", Search)
            .WithName("ways")
            .WithTags("Shots")
            .WithSummary("Ways to pot the ball and put the white there: a stream of WaysProgress, ended by closing the request")
            .Produces<WaysProgress>(200, "text/event-stream")
            .ProducesProblem(400);

    private static IResult Search(WaysRequest request, HttpContext http, SearchDesk desk)
    {
        // Everything is checked before the stream begins: after that there is no status to answer with.
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var (chosen, goal) = (content.ThePot(), request.Goal.ToGoal(content));
        WayQuestion Asked(Pot pot) => new(content.Layout, pot, goal, content.Unraised, player, content.Shape);
        var freedom = request.Freedom.Checked();
        WayResult Result(Way way, Way best, PotEntry pot) => WayResult.Of(way, best, content.Layout, pot, content.Shape);
        return desk.Ways<WaysProgress>(
            http,
            new("ways", WaySearch.StagesOf(freedom)),
            wait => new(0, 0, [], null, wait),
            (tell, end) =>
            {
                var workers = new Workers(desk.Gate, end);
                var asSet = content.IsFree ? null : WaySearch.Judge(Asked(chosen), workers);
                tell(new(0, 0, [], asSet is null ? null : Result(asSet, asSet, request.Content.Stroke.Pot!), null));
                List<(Pot Pot, PotEntry Entry)> pots = [(chosen, request.Content.Stroke.Pot!)];
                if (request.AnyPot)
                    pots.AddRange(Others(content, chosen, player, request.Goal, workers));
                var done = new List<(Way Way, PotEntry Pot)>();
                for (var i = 0; i < pots.Count; i++)
                {
                    var (pot, entry) = pots[i];
                    var before = done.ToList();
                    var latest = new List<(Way Way, PotEntry Pot)>();
                    var progress = new Teller<WaySearchProgress>(p =>
                    {
                        latest = [.. p.Ways.Select(w => (w with { Id = $"{entry.Ball} {entry.Pocket} {w.Id}" }, entry))];
                        var all = before.Concat(latest).OrderByDescending(w => w.Way.Odds.Both.Value).ToList();
                        tell(
                            new(
                                p.Strokes,
                                (i + p.Share) / pots.Count,
                                [.. (pots.Count > 1 ? all : latest).Take(MostWays).Select(w => Result(w.Way, all[0].Way, w.Pot))],
                                null,
                                null
                            )
                        );
                    });
                    WaySearch.Solve(Asked(pot), freedom, workers, progress);
                    done.AddRange(latest);
                }
            }
        );
    }

    /// <summary>Largest numbers of ways that are told, and of other pots that are tried; and how likely such a pot is at least.</summary>
    private const int MostWays = 8,
        MostOthers = 2;
    private const double LikelyEnough = 0.5;

    /// <summary>The likeliest other pots, a ball each, whose going leaves the goal what it is.</summary>
    private static IEnumerable<(Pot, PotEntry)> Others(
        CheckedContent content,
        Pot chosen,
        Core.Players.Player player,
        GoalEntry goal,
        Workers workers
    ) =>
        TableReading
            .Read(content.Layout, content.Unraised, player, content.Shape, workers, JudgementEndpoints.OnIn(content))
            .Where(o => o.Cut.Kind == PotKind.Direct && o.Cut.Pot.Slot != chosen.Slot && o.Chance.Value >= LikelyEnough)
            .Where(o => !goal.Names(content.Layout.Balls[o.Cut.Pot.Slot].Ball.Id))
            .DistinctBy(o => o.Cut.Pot.Slot)
            .Take(MostOthers)
            .Select(o =>
                (o.Cut.Pot, new PotEntry { Ball = content.Layout.Balls[o.Cut.Pot.Slot].Ball.Id, Pocket = o.Cut.Pot.Pocket.Name() })
            );
}
