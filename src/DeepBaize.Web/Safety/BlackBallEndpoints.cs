using System.ComponentModel;
using DeepBaize.Core.Advice.BlackBall;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Safety;

/// <summary>What the openings of the re-spotted black are compared for: a table and two players.</summary>
public sealed record BlackBallRequest
{
    public IReadOnlyDictionary<string, double> Conditions { get; init; } = new Dictionary<string, double>();
    public PlayerEntry Player { get; init; } = new();

    [Description("How well the other player strikes: tour, county, club or learner.")]
    public string Rival { get; init; } = RivalSkill.Usual;
}

/// <summary>A first stroke at the re-spotted black; m.</summary>
public sealed record OpeningResult(
    OpeningKind Kind,
    double WhiteX,
    double WhiteY,
    StrokeEntry Stroke,
    double Fullness,
    Fullness FullnessWord,
    IReadOnlyList<string> Cushions,
    Estimate Safe,
    Estimate PotLeft,
    Estimate DoubleLeft,
    Estimate Tight,
    Estimate Foul,
    [property: Description("Share of rallies played out from it that the one who opened wins.")] Estimate Wins,
    bool IsLevel,
    IReadOnlyList<PointEntry> WhitePath,
    IReadOnlyList<PointEntry> BlackPath
)
{
    public static OpeningResult Of(Opening o) =>
        new(
            Kind: o.Kind,
            WhiteX: o.White.X,
            WhiteY: o.White.Y,
            Stroke: StrokeEntries.Free(o.Stroke),
            Fullness: o.Fullness,
            FullnessWord: Fullnesses.Nearest(o.Fullness),
            Cushions: [.. o.Route.Cushions.Select(c => c.Name())],
            Safe: o.Odds.Safe,
            PotLeft: o.Odds.PotLeft,
            DoubleLeft: o.Odds.DoubleLeft,
            Tight: o.Odds.Tight,
            Foul: o.Odds.Foul,
            Wins: o.Wins,
            IsLevel: o.IsLevel,
            WhitePath: [.. o.Drawing.WhitePath.Select(PointEntry.Of)],
            BlackPath: [.. o.Drawing.BlackPath.Select(PointEntry.Of)]
        );
}

/// <summary>An event of the stream: the best opening of each kind so far.</summary>
public sealed record BlackBallEvent(SearchWait? Wait, long Examined, double Share, IReadOnlyList<OpeningResult> Openings)
    : ISearchProgress<BlackBallEvent>
{
    /// <summary>Where the comparison is.</summary>
    public SearchStatus? Status { get; init; }

    /// <inheritdoc/>
    public BlackBallEvent With(SearchStatus status) => this with { Status = status };
}

/// <summary>The re-spotted black.</summary>
internal static class BlackBallEndpoints
{
    public static void MapBlackBall(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/black-ball", (BlackBallRequest request, HttpContext http, SearchDesk desk) =>
            {
                var player = request.Player.Checked();
                var shape = new TableShape(Conditions.With(request.Conditions));
                return Openings(http, shape, player, RivalSkill.Checked(request.Rival, player), desk);
            })
            .WithName("blackBall")
            .WithTags("Safety")
            .ProducesProblem(400)
            .Produces<BlackBallEvent>(200, "text/event-stream")
            .WithSummary("The re-spotted black: openings compared on this table, and whether to go first: a stream of BlackBallEvent");

    private static IResult Openings(HttpContext http, TableShape shape, Player player, Player rival, SearchDesk desk)
    {
        static IReadOnlyList<OpeningResult> Results(IReadOnlyList<Opening> openings) => [.. openings.Select(OpeningResult.Of)];
        return desk.Plan<BlackBallEvent>(
            http,
            new("openings", BlackBallGame.Stages),
            wait => new(wait, 0, 0, []),
            (tell, end) =>
            {
                var examined = 0L;
                var progress = new Teller<BlackBallProgress>(p =>
                {
                    examined = p.Examined;
                    if (p.Share < 1)
                        tell(new(null, p.Examined, p.Share, Results(p.Openings)));
                });
                var openings = BlackBallGame.Compare(player, rival, shape, desk.Gate, progress, end);
                tell(new(null, examined, 1, Results(openings)));
            }
        );
    }
}
