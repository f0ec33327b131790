using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Shots;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Tables;

/// <summary>How balls that were taken together are laid.</summary>
public enum ArrangeHow
{
    /// <summary>Every ball moved by one distance in one direction.</summary>
    Move,

    /// <summary>Evenly between the two that are farthest apart.</summary>
    Row,

    /// <summary>Evenly along the arc through both ends and the one that is farthest from the line between them.</summary>
    Arc,

    /// <summary>Each tight on the cushion that is nearest to it.</summary>
    Cushion,

    /// <summary>Each straight towards the nearest other ball until they touch.</summary>
    Touch,
}

/// <summary>Balls that are laid together.</summary>
public sealed record ArrangeRequest
{
    public required IReadOnlyList<BallEntry> Balls { get; init; }
    public IReadOnlyDictionary<string, double>? Conditions { get; init; }

    [Description("Ids of the balls that are laid, each once.")]
    public required IReadOnlyList<string> Together { get; init; }
    public required ArrangeHow How { get; init; }

    [Description("Of a move, m up the table.")]
    public double X { get; init; }

    [Description("Of a move, m across, to the green's side.")]
    public double Y { get; init; }
}

/// <summary>A position to be mirrored with its stroke.</summary>
public sealed record MirrorRequest
{
    public required PositionContent Content { get; init; }

    [Description("along: the sides change places; across: the ends do.")]
    public required MirrorAxis Axis { get; init; }
}

/// <summary>A table that play begins from.</summary>
public sealed record LaidTable(string Name, IReadOnlyList<BallEntry> Balls);

/// <summary>Conditions, and a property of them to turn.</summary>
public sealed record FeelRequest
{
    public IReadOnlyDictionary<string, double>? Conditions { get; init; }

    [Description("cloth, cushions, pockets, balls or cue; null: only tells how they stand.")]
    public string? Scale { get; init; }

    [Description("−1 (slow, dull, tight, worn, whippy) to 1 (quick, lively, generous, clean, stiff); 0 is a match table's.")]
    public double To { get; init; }
}

/// <summary>How conditions stand on a scale that players speak of, and what that alone changes.</summary>
/// <param name="At">−1 to 1.</param>
/// <param name="Value">In metres for cloth and cushions, in degrees for pockets, balls and cue.</param>
/// <param name="Standard">What this property comes to on a match table, in the unit of the value.</param>
/// <param name="Way">The way of the ball that shows it, m; empty where none does.</param>
public sealed record FeelResult(string Scale, double At, double Value, double Standard, IReadOnlyList<PlaceResult> Way);

/// <summary>Conditions after one property was turned, and what each property changes.</summary>
/// <param name="RunsOff">How far a slow ball runs off its line in the table's width, along x and along y, m.</param>
public sealed record FeelAnswer(IReadOnlyDictionary<string, double> Conditions, IReadOnlyList<FeelResult> Scales, PlaceResult RunsOff);

/// <summary>Laying balls as if by hand: several together, tables that play begins from, mirrors.</summary>
public static class LayingEndpoints
{
    public static IReadOnlyList<LaidTable> Tables { get; } =
    [
        new("opening", [.. Rack.Opening().Select(BallEntry.Of)]),
        new("lineUp", [.. Rack.LineUp().Select(BallEntry.Of)]),
        new("colours", [.. Rack.ColoursAlone().Select(BallEntry.Of)]),
    ];

    public static void MapLaying(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api").WithTags("Table").ProducesProblem(400);
        group.MapPost("/arrange", Arrange).WithName("arrange").WithSummary("Several balls laid together, as near as each can rest");
        group
            .MapPost("/conditions", Feel)
            .WithName("conditions")
            .WithSummary("Conditions in the words of players: turned on one scale, and what each changes");
        group.MapPost("/mirror", Mirror).WithName("mirror").WithSummary("A position in the mirror, stroke and target too");
    }

    private static List<BallEntry> Arrange(ArrangeRequest request)
    {
        var checks = new Checks();
        checks.Range("x", request.X, -10, 10, " m");
        checks.Range("y", request.Y, -10, 10, " m");
        var fewest = request.How switch
        {
            ArrangeHow.Row => 2,
            ArrangeHow.Arc => 3,
            _ => 1,
        };
        checks.Range("together.length", request.Together.Count, fewest, Ball.Count);
        checks.That(request.Together.Distinct().Count() == request.Together.Count, "together", "A ball is named twice.", "each ball once");
        checks.ThrowIfAny();
        var shape = new TableShape(Conditions.With(request.Conditions));
        var all = Layout.Check(BallEntries.Of(request.Balls), shape);
        List<PlacedBall> moved = [];
        for (var i = 0; i < request.Together.Count; i++)
            moved.Add(
                all.Where(b => b.Ball.Id == request.Together[i]).Select(b => (PlacedBall?)b).SingleOrDefault() ?? throw new InputException(
                        $"together[{i}]",
                        "This ball is not on the table.",
                        "ids of balls on the table"
                    )
            );
        List<PlacedBall> others = [.. all.Except(moved)];
        IReadOnlyList<Vec2> places = [.. moved.Select(b => b.At)];
        IReadOnlyList<Vec2> wishes = request.How switch
        {
            ArrangeHow.Row => Arrangement.Row(places),
            ArrangeHow.Arc => Arrangement.Arc(places),
            ArrangeHow.Cushion => [.. places.Select(Arrangement.AtCushion)],
            ArrangeHow.Touch => [.. moved.Select(b => Arrangement.Touching(b.At, [.. all.Where(o => o.Ball != b.Ball)]))],
            _ => [.. places.Select(p => p + new Vec2(request.X, request.Y))],
        };
        var settled = Arrangement.Settle([.. moved.Select((b, i) => new PlacedBall(b.Ball, wishes[i]))], others, shape);
        return [.. settled.Select(BallEntry.Of)];
    }

    private static FeelAnswer Feel(FeelRequest request)
    {
        Conditions.With(request.Conditions);
        var checks = new Checks();
        var scale = ConditionScale.Find(request.Scale);
        checks.That(
            request.Scale is null || scale is not null,
            "scale",
            "There is no such scale.",
            string.Join(", ", ConditionScale.All.Select(s => s.Name))
        );
        checks.Range("to", request.To, -1, 1);
        checks.ThrowIfAny();
        var turned = scale?.Turned(request.Conditions, request.To) ?? request.Conditions ?? new Dictionary<string, double>();
        var conditions = Conditions.With(turned);
        return new(
            turned,
            [
                .. ConditionEffects
                    .Of(conditions)
                    .Select(e => new FeelResult(
                        e.Scale.Name,
                        e.Scale.Of(conditions),
                        Math.Round(e.Value, 4),
                        Math.Round(e.Standard, 4),
                        [.. e.Way.Select(PlaceResult.Rounded)]
                    )),
            ],
            PlaceResult.Rounded(conditions.RunsOff(Dimensions.Width))
        );
    }

    private static PositionContent Mirror(MirrorRequest request)
    {
        var (content, mirror) = (request.Content, new TableMirror(request.Axis));
        Layout.Check(BallEntries.Of(content.Balls), new TableShape(Conditions.With(content.Conditions)), "content.balls");
        var stroke = content.Stroke;
        return content with
        {
            Balls = [.. content.Balls.Select(b => OfBall(b, mirror))],
            Stroke = stroke with
            {
                Aim = mirror.Degrees(stroke.Aim),
                Side = -stroke.Side,
                Pot = stroke.Pot is { } pot
                    ? pot with
                    {
                        Ball = mirror.Ball(pot.Ball)!,
                        Pocket = mirror.Name(pot.Pocket)!,
                        Through = mirror.Ball(pot.Through),
                        Off = mirror.Name(pot.Off),
                    }
                    : null,
            },
        };
    }

    private static BallEntry OfBall(BallEntry ball, TableMirror mirror)
    {
        var place = mirror.Place(new(ball.X, ball.Y));
        return new()
        {
            Id = mirror.Ball(ball.Id)!,
            X = place.X,
            Y = place.Y,
        };
    }
}
