using System.ComponentModel;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Shots;

public record JudgementRequest
{
    public required PositionContent Content { get; init; }
    [Description("tour, county, club or learner.")]
    public string Skill { get; init; } = "county";
}

public sealed record FanRequest
{
    public required PositionContent Content { get; init; }
    public required FanKind Kind { get; init; }
}

public sealed record ObstacleResult(string Ball, [property: Description("In the cue ball's way, else in the object ball's.")] bool OfCueBall);

/// <summary>One ball into one pocket; see DeepBaize.Core.Shots.PotOption. Clearances in m.</summary>
public sealed record PotOptionResult(
    CutResult Cut, double Pace, double? AimDegrees, double ToleranceDegrees, double ToleranceMillimetres, double Chance,
    double? CueBallClearance, double? PotClearance, IReadOnlyList<ObstacleResult> Obstacles);

public sealed record SpreadAnswer(
    int Samples, double? Pot, double InOff, double Kiss, double? MissThick, double? MissThin,
    [property: Description("Outlines, each closed, of the smallest area in which the white stops 68 times of 100.")] IReadOnlyList<IReadOnlyList<PlaceResult>> Likely,
    [property: Description("The same for 95 of 100.")] IReadOnlyList<IReadOnlyList<PlaceResult>> Nearly);

public sealed record FanLineResult(
    string Key, double Aim, double Side, double Height, double Pace, bool Potted, string? WhitePocket, IReadOnlyList<PointEntry> Points);

/// <summary>What is on, what small errors do, and what the other ways to play it are.</summary>
public static class JudgementEndpoints
{
    public static void MapJudgements(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api").WithTags("Shots").ProducesProblem(400);
        group.MapPost("/read", Read).WithName("read").WithSummary("Every ball into every pocket, judged at a skill, the likeliest first");
        group.MapPost("/spread", SpreadOf).WithName("spread").WithSummary("Where the white may stop and how often the pot goes in, from 2,000 strokes with a player's errors");
        group.MapPost("/fan", FanOf).WithName("fan").WithSummary("The same pot with one knob turned: routes, paces, heights or sides");
    }

    private static IReadOnlyList<PotOptionResult> Read(JudgementRequest request)
    {
        var content = CheckedContent.Of(request.Content);
        static double? Finite(double clearance) => double.IsFinite(clearance) ? clearance : null;
        return [.. TableReading.Read(content.Layout, content.Stroke, Skill.Named(request.Skill), content.Shape).Select(o => new PotOptionResult(
            CutResult.Of(o.Cut, o.AimDegrees - o.Cut.AimDegrees), o.Pace, o.AimDegrees, o.ToleranceDegrees, o.ToleranceMillimetres, o.Chance,
            Finite(o.CueBallClearance), Finite(o.PotClearance), [.. o.Obstacles.Select(b => new ObstacleResult(b.Ball.Id, b.OfCueBall))]))];
    }

    private static SpreadAnswer SpreadOf(JudgementRequest request, CancellationToken cancel)
    {
        var content = CheckedContent.Of(request.Content);
        var aimed = content.Aimed();
        (int, Cut)? pot = aimed is { } a ? (content.Pot!.Value.Slot, a.Cut) : null;
        var spread = Spread.Sample(content.Layout, aimed?.Stroke ?? content.Stroke, pot, Skill.Named(request.Skill), content.Shape, cancel: cancel);
        static IReadOnlyList<IReadOnlyList<PlaceResult>> Places(IReadOnlyList<IReadOnlyList<PathPoint>> outlines) =>
            [.. outlines.Select(o => o.Select(p => new PlaceResult(p.X, p.Y)).ToList())];
        var hasPot = pot is not null;
        return new(spread.Samples, hasPot ? spread.Pot : null, spread.InOff, spread.Kiss, hasPot ? spread.MissThick : null, hasPot ? spread.MissThin : null,
            Places(spread.Likely), Places(spread.Nearly));
    }

    private static IReadOnlyList<FanLineResult> FanOf(FanRequest request)
    {
        var content = CheckedContent.Of(request.Content);
        var pot = content.Pot ?? throw new Core.InputException("content.stroke.pot", "No pot is chosen.", "a ball and a pocket");
        return [.. Fan.Of(content.Layout, content.Stroke, pot, request.Kind, content.Shape).Select(l => new FanLineResult(
            l.Key, l.Stroke.AimDegrees, l.Stroke.SideTips, l.Stroke.HeightTips, l.Stroke.Pace, l.Potted, l.WhitePocket?.Name(),
            [.. l.WhitePath.Select(p => new PointEntry(p.Time, p.X, p.Y))]))];
    }
}
