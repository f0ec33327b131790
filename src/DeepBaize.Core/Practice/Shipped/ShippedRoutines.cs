using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Practice.Shipped;

/// <summary>A routine that comes with the application.</summary>
/// <param name="Id">In addresses; never changed.</param>
public sealed record ShippedRoutine(string Id, Routine Routine);

/// <summary>
/// The routines that come with the application: what is trained and how it is scored is common practice, no source; the layouts are worked
/// out here, on a table of the default conditions.
/// </summary>
public static class ShippedRoutines
{
    /// <summary>Id of the routine that asks for one plain ball at each number of the player's own scale of paces.</summary>
    public const string PaceScale = "pace-scale";

    private static readonly Lazy<IReadOnlyList<ShippedRoutine>> Made = new(() =>
        [
            .. CueingRoutines.All(),
            .. SpinRoutines.All(),
            .. PositionRoutines.All(),
            .. PottingRoutines.All(),
            .. RunRoutines.All(),
            .. SafetyRoutines.All(),
        ]
    );

    /// <summary>All routines that come with the application.</summary>
    public static IReadOnlyList<ShippedRoutine> All => Made.Value;

    /// <summary>Returns the routine with an id; null if there is none.</summary>
    public static Routine? Find(string id) => All.FirstOrDefault(r => r.Id == id)?.Routine;
}

/// <summary>Words for what the lists are made of.</summary>
internal static class Laying
{
    public static TableShape Shape { get; } = new(Conditions.Default);

    public static LaidBall White(double x, double y) => new("white", x, y);

    public static LaidBall At(string id, double x, double y) => new(id, x, y);

    public static LaidBall OnSpot(Ball colour) => LaidBall.Of(colour, Dimensions.Spot(colour).X, Dimensions.Spot(colour).Y);

    public static Demand Pot { get; } = new() { Kind = DemandKind.Pot };

    public static Demand WhiteIn(Area area) => new() { Kind = DemandKind.WhiteIn, Area = area };

    public static Demand BallIn(Area area) => new() { Kind = DemandKind.BallIn, Area = area };

    public static Demand RunsInto(string? ball = null) => new() { Kind = DemandKind.RunsInto, Ball = ball };

    public static Demand MeetsFirst(string ball) => new() { Kind = DemandKind.MeetsFirst, Ball = ball };

    public static Demand Score(int points) => new() { Kind = DemandKind.Score, Points = points };

    /// <summary>Where the white stops if the stroke is played just as it is meant.</summary>
    public static Vec2 Stops(IReadOnlyList<LaidBall> balls, MeantStroke stroke)
    {
        var step = new Step
        {
            Label = "",
            Balls = balls,
            Stroke = stroke,
            Demands = [],
        };
        var layout = step.LayoutOn(Shape);
        var simulator = new Simulator(Shape);
        step.StrokeOn(layout, Shape, Player.Default).Play(simulator, layout);
        return simulator.At(0);
    }

    /// <summary>A circle about the place where the white stops.</summary>
    public static Area AboutStop(IReadOnlyList<LaidBall> balls, MeantStroke stroke, double radius)
    {
        var stop = Stops(balls, stroke);
        return Area.Circle(Math.Round(stop.X, 3), Math.Round(stop.Y, 3), radius);
    }

    /// <summary>The whole width of the table between two distances from the baulk cushion, m.</summary>
    public static Area Across(double from, double to) => Area.Box(Math.Max(0, from), 0, Math.Min(Dimensions.Length, to), Dimensions.Width);
}
