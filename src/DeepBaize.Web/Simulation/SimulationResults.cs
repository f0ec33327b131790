using System.ComponentModel;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;

namespace DeepBaize.Web.Simulation;

/// <summary>A stroke in the model's own units.</summary>
public sealed record StrikeRequest
{
    [Description("Direction of the cue in plan, degrees counter-clockwise from +x.")]
    public required double Aim { get; init; }

    [Description("m/s, 0 to 8.")]
    public required double CueSpeed { get; init; }

    [Description("Where the tip touches, as a fraction of the ball's radius; + is right-hand side.")]
    public double Side { get; init; }

    [Description("Where the tip touches, as a fraction of the ball's radius; + is above centre.")]
    public double Height { get; init; }

    [Description("Degrees of the butt above level, 0 to 60; left out, level.")]
    public double Elevation { get; init; }

    public Strike ToStrike() => Strike.Create(Aim, CueSpeed, Side, Height, Elevation);
}

/// <summary>A stroke in the model's units, and the balls it is played from.</summary>
public sealed record SimulationRequest
{
    public required IReadOnlyList<BallEntry> Balls { get; init; }
    public required StrikeRequest Strike { get; init; }

    [Description("Figures that differ from the defaults, by name.")]
    public IReadOnlyDictionary<string, double>? Conditions { get; init; }
}

/// <summary>Where a ball ends, m.</summary>
public sealed record FinalBall(
    string Id,
    double X,
    double Y,
    [property: Description("Where it was potted, off if it left the table, or null.")] string? Pocket
);

/// <summary>Something that happened in a shot; seconds after the strike and metres.</summary>
public sealed record EventEntry(double Time, ShotEventKind Kind, string Ball, string? Other, double X, double Y, string? Pocket);

/// <summary>A point of a drawn path, rounded to a micrometre and a microsecond: seconds and metres.</summary>
public sealed record PointEntry(double Time, double X, double Y)
{
    public static PointEntry Of(PathPoint p) => new(Math.Round(p.Time, 6), Math.Round(p.X, 6), Math.Round(p.Y, 6));
}

/// <summary>The way of a ball that moved.</summary>
public sealed record PathEntry(string Id, IReadOnlyList<PointEntry> Points)
{
    /// <summary>The ways of all balls that moved in a shot.</summary>
    public static IReadOnlyList<PathEntry> Of(Layout layout, ShotRecord record, int count)
    {
        var paths = ShotPath.Points(record, count, ShotPath.Drawn);
        return
        [
            .. Enumerable
                .Range(0, count)
                .Where(i => paths[i].Count > 0)
                .Select(i => new PathEntry(layout.Balls[i].Ball.Id, [.. paths[i].Select(PointEntry.Of)])),
        ];
    }
}

/// <summary>All that a shot does. Paths are of the balls that moved.</summary>
public sealed record SimulationResult(
    IReadOnlyList<FinalBall> Finals,
    IReadOnlyList<EventEntry> Events,
    IReadOnlyList<PathEntry> Paths,
    double Duration
)
{
    /// <summary>Plays a strike out; returns the result with the record and the simulator that it was made from.</summary>
    public static (SimulationResult Result, ShotRecord Record, Simulator After) Play(Layout layout, in Strike strike, TableShape shape)
    {
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        simulator.Place(layout.AsSpan());
        simulator.Play(strike, record);
        return (Of(layout, record, simulator), record, simulator);
    }

    private static SimulationResult Of(Layout layout, ShotRecord record, Simulator after)
    {
        string Id(int slot) => layout.Balls[slot].Ball.Id;
        string? PocketOf(int slot) => after.IsOff(slot) ? "off" : after.PocketOf(slot)?.Name();
        var slots = Enumerable.Range(0, after.Count);
        return new(
            Finals: [.. slots.Select(i => new FinalBall(Id(i), after.X(i), after.Y(i), PocketOf(i)))],
            Events:
            [
                .. record.Events.Select(e => new EventEntry(
                    Math.Round(e.Time, 6),
                    e.Kind,
                    Id(e.Ball),
                    e.Other < 0 ? null : Id(e.Other),
                    Math.Round(e.X, 6),
                    Math.Round(e.Y, 6),
                    e.Pocket?.Name()
                )),
            ],
            Paths: PathEntry.Of(layout, record, after.Count),
            Duration: Math.Round(after.Duration, 6)
        );
    }
}

/// <summary>Balls as a request has them, for the core's checks.</summary>
public static class BallEntries
{
    /// <summary>Returns id and place (m) of each; an entry that is null has no id and no place.</summary>
    public static IReadOnlyList<(string?, double, double)> Of(IReadOnlyList<BallEntry> balls) =>
        [.. balls.Select(b => b is null ? (null, double.NaN, double.NaN) : ((string?)b.Id, b.X, b.Y))];
}
