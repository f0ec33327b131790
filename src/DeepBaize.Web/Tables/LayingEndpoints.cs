using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Tables;

/// <summary>How balls that were taken together are laid.</summary>
public enum ArrangeHow
{
    /// <summary>All by the same way.</summary>
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
                all.Where(b => b.Ball.Id == request.Together[i]).Select(b => (PlacedBall?)b).SingleOrDefault()
                    ?? throw new InputException($"together[{i}]", "This ball is not on the table.", "ids of balls on the table")
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
