using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Shots;

/// <summary>A straight piece of a ball's way, m.</summary>
public sealed record LegResult(double FromX, double FromY, double ToX, double ToY)
{
    public static LegResult Of(Segment s) => new(s.From.X, s.From.Y, s.To.X, s.To.Y);
}

/// <summary>The pot's geometry.</summary>
/// <param name="Ball">The ball that is to go in.</param>
/// <param name="Struck">The ball that the white strikes: another one only in a plant.</param>
/// <param name="Legs">The ways of the object balls in order, m.</param>
public sealed record CutResult(
    PotKind Kind,
    string Ball,
    string Struck,
    string Pocket,
    string? Off,
    CutFault Fault,
    double GhostX,
    double GhostY,
    IReadOnlyList<LegResult> Legs,
    double PotDegrees,
    double AimDegrees,
    double CutDegrees,
    double Fullness,
    Fullness FullnessWord,
    double AimOffset,
    double OpeningDegrees,
    double CueBallDistance,
    double PotDistance,
    [property: Description(
        "By how much the aim that pots lies to the left of the ghost ball's, degrees; null if no aim does with this stroke."
    )]
        double? AllowanceDegrees
)
{
    public static CutResult Of(in Cut c, Layout layout, double? allowance) =>
        new(
            Kind: c.Kind,
            Ball: layout.Balls[c.Pot.Slot].Ball.Id,
            Struck: c.ObjectBall.Id,
            Pocket: c.Pocket.Name(),
            Off: c.Pot.Off?.Name(),
            Fault: c.Fault,
            GhostX: c.Ghost.X,
            GhostY: c.Ghost.Y,
            Legs: [.. c.Legs.Select(LegResult.Of)],
            PotDegrees: c.PotDegrees,
            AimDegrees: c.AimDegrees,
            CutDegrees: c.CutDegrees,
            Fullness: c.FullnessFraction,
            FullnessWord: c.Fullness,
            AimOffset: c.AimOffset,
            OpeningDegrees: c.OpeningDegrees,
            CueBallDistance: c.CueBallDistance,
            PotDistance: c.PotDistance,
            AllowanceDegrees: allowance
        );
}

/// <summary>A stroke in the model's units.</summary>
public sealed record StrikeResult(double Aim, double CueSpeed, double Side, double Height, double Elevation);

/// <summary>A stroke played from a position, with what the desk shows beside it.</summary>
/// <param name="Strike">The stroke in the model's units, as /api/simulate takes it.</param>
/// <param name="TableLengths">How far a plain ball at this pace would run.</param>
/// <param name="TipMargin">Tips left before a miscue.</param>
/// <param name="Allowance">What the aim that pots allows for; null without one.</param>
/// <param name="Reach">How the player gets at the cue ball.</param>
/// <param name="Higher">How striking higher would help.</param>
/// <param name="Hop">How high a raised butt makes the white hop, m.</param>
/// <param name="Arrival">How the cue ball comes to the ball that it meets first; null if that is none, or not directly.</param>
/// <param name="Cushions">Of each event of the simulation, which cushion was met; null of the others.</param>
/// <param name="WhiteRests">Where the cue ball stops, from cushions and spots; null if it goes in.</param>
public sealed record ShotResult(
    StrikeResult Strike,
    double TableLengths,
    double TipMargin,
    [property: Description("How high above the bed the tip touches the ball, m.")] double TipAboveBed,
    CutResult? Cut,
    Arrival? Arrival,
    Allowance? Allowance,
    ReachResult Reach,
    [property: Description(
        "A height at which the butt need be raised less; null if it need not be raised, or striking higher does not help."
    )]
        HigherResult? Higher,
    double Hop,
    [property: Description("How the line of aim passes the ball; null without a pot.")] AimSeen? Seen,
    [property: Description("How much of its spin the white has left along its way.")] IReadOnlyList<SpinMarkResult> Spins,
    [property: Description("How the cue lies, seen from the side.")] CueSideResult Cue,
    IReadOnlyList<WarningResult> Warnings,
    WhereaboutsResult? WhiteRests,
    [property: Description("How the chosen pot was missed; null if it went in, or none is chosen.")] PotMissResult? Miss,
    IReadOnlyList<string?> Cushions,
    [property: Description("When and how high balls are off the bed, in order of time.")] IReadOnlyList<FlightResult> Flights,
    SimulationResult Simulation
);

/// <summary>
/// A ball off the bed from one moment to another, s: t seconds after the first it is height + rise·t − fall·t²/2 above its place at
/// rest, m.
/// </summary>
public sealed record FlightResult(string Ball, double From, double To, double Height, double Rise, double Fall)
{
    public static FlightResult Of(PathPiece p, Layout layout) =>
        new(layout.Balls[p.Ball].Ball.Id, p.Start, p.End, p.Height.At, p.Height.Velocity, -p.Height.Acceleration);
}

/// <summary>The white's spin at one place of its way.</summary>
/// <param name="DirectionDegrees">In which it goes, counter-clockwise from straight up the table.</param>
/// <param name="Follow">Spin about the axis across its way, over that of a rolling ball: 1 rolls, 0 stun, negative screw.</param>
/// <param name="Side">Share of the side that it was given, + right-hand.</param>
public sealed record SpinMarkResult(SpinStage Stage, double Time, double X, double Y, double DirectionDegrees, double Follow, double Side)
{
    public static SpinMarkResult Of(SpinMark m) => new(m.Stage, m.Time, m.At.X, m.At.Y, m.DirectionDegrees, m.Follow, m.Side);
}

/// <summary>The stroke with the tip a tip lower or higher: the least that the butt must then be raised.</summary>
public sealed record TipMovedResult(
    [property: Description("Of the tip above the centre, tips.")] double HeightTips,
    [property: Description("Degrees.")] double ElevationDegrees
);

/// <summary>How the cue lies, seen from the side; m.</summary>
/// <param name="NoseTop">Height of a cushion's nose above the bed.</param>
/// <param name="RailTop">Height of the rail's top.</param>
/// <param name="Lower">With the bridge lowered by a tip; null where the tip would slip off.</param>
/// <param name="Upper">With the tip a tip higher; null where it would slip off.</param>
public sealed record CueSideResult(CueSide Side, double NoseTop, double RailTop, TipMovedResult? Lower, TipMovedResult? Upper)
{
    public static CueSideResult Of(Layout layout, Stroke stroke, Core.Players.Player player)
    {
        TipMovedResult? Moved(double by)
        {
            var height = stroke.HeightTips + by;
            return Tip.Margin(stroke.SideTips, height) < 0
                ? null
                : new(height, Reach.ButtFor(layout, stroke with { HeightTips = height }, player));
        }
        return new(Reach.SideOf(layout, stroke), Reach.Heights.Nose, Reach.Heights.Rail, Moved(-1), Moved(1));
    }
}

/// <summary>How a pot was missed.</summary>
/// <param name="Side">Side of the potting line on which the ball came to the pocket.</param>
/// <param name="Off">Distance from its line to the place in the pocket that was aimed at, m.</param>
/// <param name="Short">Distance that it still had to go when it stopped or met another ball, m; null if it came to the pocket.</param>
/// <param name="Jaw">near or far, if it met a jaw first.</param>
/// <param name="Crossing">Where its line crosses the mouth of the pocket, m; null if it does not.</param>
public sealed record PotMissResult(MissSide Side, double Off, double? Short, string? Jaw, PlaceResult? Crossing)
{
    public static PotMissResult Of(PotMiss m) =>
        new(
            m.Side,
            m.Off,
            m.Short,
            m.IsNearJaw is { } near ? (near ? "near" : "far") : null,
            m.Crossing is { } at ? PlaceResult.Of(at) : null
        );
}

/// <summary>Where a ball lies as players say it, m.</summary>
/// <param name="FromCushion">From touching the nearest cushion.</param>
/// <param name="Spot">The colour whose spot is nearest.</param>
/// <param name="FromSpot">From that spot to the ball's centre.</param>
public sealed record WhereaboutsResult(Stretch Stretch, string Cushion, double FromCushion, string Spot, double FromSpot)
{
    public static WhereaboutsResult Of(Whereabouts w) => new(w.Stretch, w.Cushion.Name(), w.FromCushion, w.Spot.Id, w.FromSpot);
}

/// <summary>Something to know before playing it.</summary>
public sealed record WarningResult(
    WarningKind Kind,
    string? Ball,
    [property: Description("How near or how high, m; for a raised butt the share of the screw that is lost.")] double Amount,
    string? Pocket
)
{
    public static WarningResult Of(ShotWarning w) => new(w.Kind, w.Ball?.Id, w.Amount, w.Pocket?.Name());
}

/// <summary>A position with its stroke, and who plays it.</summary>
public sealed record ShotRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();
}

/// <summary>A ball that is moved by hand: where it is wanted.</summary>
public sealed record PlaceRequest
{
    public required IReadOnlyList<BallEntry> Balls { get; init; }
    public IReadOnlyDictionary<string, double>? Conditions { get; init; }

    [Description("The ball to place; it may be new.")]
    public required string Ball { get; init; }
    public required double X { get; init; }
    public required double Y { get; init; }

    [Description("Whether it must lie in the D.")]
    public bool InD { get; init; }
}

/// <summary>A place on the table, m.</summary>
public sealed record PlaceResult(double X, double Y)
{
    public static PlaceResult Of(Vec2 place) => new(place.X, place.Y);

    /// <summary>To a tenth of a millimetre, for what is drawn.</summary>
    public static PlaceResult Rounded(Vec2 place) => new(Math.Round(place.X, 4), Math.Round(place.Y, 4));
}

public static class ShotEndpoints
{
    public static void MapShots(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api").WithTags("Shots").ProducesProblem(400);
        group.MapPost("/shot", Shot).WithName("shot").WithSummary("Aims and plays a stroke in the player's units");
        group.MapPost("/place", Place).WithName("place").WithSummary("The nearest place where a ball can rest");
    }

    private static ShotResult Shot(ShotRequest request)
    {
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var (layout, shape, stroke) = (content.Layout, content.Shape, content.Stroke);
        var aimed = content.Aimed();
        if (aimed is not null)
            stroke = aimed.Value.Stroke;
        var strike = stroke.ToStrike();
        var (simulation, record, after) = SimulationResult.Play(layout, strike, shape);
        var arrival = Arrival.Of(record, strike, shape);
        return new(
            Strike: new(strike.AimDegrees, strike.CueSpeed, strike.Side, strike.Height, strike.ElevationDegrees),
            TableLengths: Pace.TableLengths(strike.CueSpeed, shape),
            TipMargin: Tip.Margin(stroke.SideTips, stroke.HeightTips),
            TipAboveBed: strike.TipAboveBed,
            Cut: aimed is { } a ? CutResult.Of(a.Cut, layout, a.Found - a.Cut.AimDegrees) : null,
            Arrival: arrival,
            Allowance: aimed is { Found: { } found } pot && arrival is { } came ? Allowance.Of(pot.Cut, came, found) : null,
            Reach: ReachResult.Of(Reach.Of(layout, stroke, player)),
            Higher: Reach.HigherFor(layout, stroke) is { } higher ? new(higher.HeightTips, higher.Degrees) : null,
            Hop: record.Highest(0),
            Seen: aimed is { Cut.CanBeAimed: true } seen
                ? AimSeen.Of(layout.White.At, layout.Balls[seen.Cut.Pot.Struck].At, seen.Cut, stroke.AimDegrees)
                : null,
            Spins: [.. SpinTrace.Of(record).Select(SpinMarkResult.Of)],
            Cue: CueSideResult.Of(layout, stroke, player),
            Warnings: [.. ShotWarnings.Of(record, layout, stroke, after, shape, content.Pot).Select(WarningResult.Of)],
            WhiteRests: after.IsOnTable(0) ? WhereaboutsResult.Of(Whereabouts.Of(new(after.X(0), after.Y(0)))) : null,
            Miss: aimed is { } missed && PotMiss.Of(record, after, missed.Cut, shape) is { } miss ? PotMissResult.Of(miss) : null,
            Cushions: [.. record.Events.Select(e => e.Kind == ShotEventKind.Cushion ? Core.Table.Cushions.Nearest(e.At).Name() : null)],
            Flights: [.. record.Pieces.Where(p => p.IsInAir).OrderBy(p => p.Start).Select(p => FlightResult.Of(p, layout))],
            Simulation: simulation
        );
    }

    private static PlaceResult Place(PlaceRequest request)
    {
        var checks = new Checks();
        checks.That(Ball.TryParse(request.Ball, out var ball), "ball", "There is no such ball.", Ball.AllowedIds);
        checks.Range("x", request.X, -10, 10, " m");
        checks.Range("y", request.Y, -10, 10, " m");
        // Where the ball lay does not matter, but it must be a place.
        for (var i = 0; i < request.Balls.Count; i++)
            if (request.Balls[i] is { } own && own.Id == request.Ball)
            {
                checks.Range($"balls[{i}].x", own.X, -10, 10, " m");
                checks.Range($"balls[{i}].y", own.Y, -10, 10, " m");
            }
        checks.That(request.Balls.Count(b => b?.Id == request.Ball) <= 1, "balls", "The ball is there twice.", "each ball once");
        checks.ThrowIfAny();
        var shape = new TableShape(Conditions.With(request.Conditions));
        var others = Layout.Check(BallEntries.Of([.. request.Balls.Where(b => b?.Id != request.Ball)]), shape);
        var place =
            Placement.Nearest(new(request.X, request.Y), others, shape, request.InD)
            ?? throw new InputException("ball", $"There is no room for the {ball.Id} in the D.", "clear a place in the D first");
        return PlaceResult.Of(place);
    }
}
