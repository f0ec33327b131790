using System.ComponentModel;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Players;
using DeepBaize.Data.Positions;

namespace DeepBaize.Web.Tables;

/// <summary>Conditions whose table is wanted.</summary>
public sealed record TableRequest
{
    public IReadOnlyDictionary<string, double>? Conditions { get; init; }
}

/// <summary>A jaw's arc or a drop, m.</summary>
public sealed record CircleResult(double X, double Y, double Radius)
{
    public static CircleResult Of(Circle c) => new(c.X, c.Y, c.Radius);
}

/// <summary>A straight nose, m.</summary>
public sealed record NoseResult(double X1, double Y1, double X2, double Y2)
{
    public static NoseResult Of(Nose n) => new(n.From.X, n.From.Y, n.To.X, n.To.Y);
}

/// <summary>A pocket: its two jaws and its drop.</summary>
public sealed record PocketResult(string Name, CircleResult JawA, CircleResult JawB, CircleResult Drop);

/// <summary>Cushions, jaws and drops to draw.</summary>
public sealed record TableResult(IReadOnlyList<NoseResult> Noses, IReadOnlyList<PocketResult> Pockets);

/// <summary>Where a colour is spotted, m.</summary>
public sealed record SpotResult(string Ball, double X, double Y);

/// <summary>A figure of the conditions, with its unit and range.</summary>
public sealed record ConditionResult(string Name, string Group, string Unit, double Min, double Max, double Default);

/// <summary>Conditions by a name: what differs from the defaults.</summary>
public sealed record PresetResult(string Name, IReadOnlyDictionary<string, double> Changes);

/// <summary>A preset skill and its parts.</summary>
public sealed record SkillResult(string Name, SkillEntry Parts);

/// <summary>A part of a skill that may be set by hand, with its unit and range.</summary>
public sealed record SkillPartResult(string Name, string Unit, double Min, double Max);

/// <summary>
/// What never changes: dimensions (m), spots, the balls' ids, the scales and limits of a stroke, the conditions there are.
/// </summary>
public sealed record ReferenceResult(
    double Length,
    double Width,
    double BallRadius,
    double BaulkLineX,
    double DRadius,
    IReadOnlyList<SpotResult> Spots,
    IReadOnlyList<string> BallIds,
    IReadOnlyDictionary<string, int> Values,
    IReadOnlyList<string> Pockets,
    IReadOnlyList<BallEntry> OpeningRack,
    [property: Description("Tables that play begins from: opening, lineUp, colours.")] IReadOnlyList<LaidTable> Tables,
    double PaceMin,
    double PaceMax,
    double TipLimit,
    double TouchOfSide,
    double MillimetresPerTip,
    double ElevationMax,
    IReadOnlyList<ConditionResult> Conditions,
    IReadOnlyList<PresetResult> Presets,
    IReadOnlyList<SkillResult> Skills,
    IReadOnlyList<SkillPartResult> SkillParts
);

public static class TableEndpoints
{
    public static void MapTables(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api").WithTags("Table");
        group.MapGet("/reference", () => Reference).WithName("reference").WithSummary("Dimensions, spots, scales, limits and conditions");
        group
            .MapPost("/table", (TableRequest request) =>
            {
                var shape = new TableShape(Conditions.With(request.Conditions));
                return new TableResult(
                    [.. shape.Noses.Select(NoseResult.Of)],
                    [
                        .. shape.PocketShapes.Select(p => new PocketResult(
                            p.Pocket.Name(),
                            CircleResult.Of(p.JawA),
                            CircleResult.Of(p.JawB),
                            CircleResult.Of(p.Drop)
                        )),
                    ]
                );
            })
            .WithName("table")
            .WithSummary("Cushions, jaws and drops under given conditions")
            .ProducesProblem(400);
    }

    private static ReferenceResult Reference { get; } =
        new(
            Dimensions.Length,
            Dimensions.Width,
            Dimensions.BallRadius,
            Dimensions.BaulkLineX,
            Dimensions.DRadius,
            [.. Ball.Colours.Select(c => new SpotResult(c.Id, Dimensions.Spot(c).X, Dimensions.Spot(c).Y))],
            [.. Enumerable.Range(0, Ball.Count).Select(i => Ball.FromIndex(i).Id)],
            Enumerable.Range(0, Ball.Count).Select(Ball.FromIndex).ToDictionary(b => b.Id, Values.Of),
            [.. Pockets.All.Select(p => p.Name())],
            [.. Rack.Opening().Select(BallEntry.Of)],
            LayingEndpoints.Tables,
            Pace.Slowest,
            Pace.Hardest,
            Tip.Limit,
            SideChoice.Touch,
            Tip.MillimetresPerTip,
            Strike.MaxElevationDegrees,
            [.. Conditions.Fields.Select(f => new ConditionResult(f.Name, f.Group, f.Unit, f.Min, f.Max, f.Get(Conditions.Default)))],
            [.. Conditions.Presets.Select(p => new PresetResult(p.Name, p.Changes))],
            [.. Skill.Presets.Select(s => new SkillResult(s.Name, SkillEntry.Of(s)))],
            [.. Skill.Parts.Select(p => new SkillPartResult(p.Name, p.Unit.Trim(), p.Least, p.Most))]
        );
}
