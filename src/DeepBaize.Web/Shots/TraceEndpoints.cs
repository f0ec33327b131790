using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Problems;
using DeepBaize.Web.Searches;

namespace DeepBaize.Web.Shots;

/// <summary>A stroke and the one before it, from the same table.</summary>
public sealed record ChangeRequest
{
    public required PositionContent Content { get; init; }

    [Description("The stroke that the content's own is compared with.")]
    public required StrokeEntry Before { get; init; }
    public PlayerEntry Player { get; init; } = new();
}

/// <summary>A stroke at a pot, and what the white is to do after it.</summary>
public sealed record WindowsRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();

    [Description("What the white is to do; by itself the pot, or without one that the same ball is met first. The white must stay on.")]
    public GoalEntry? Goal { get; init; }
}

/// <summary>What changing a stroke did to where the white goes.</summary>
/// <param name="Knob">The one thing that was changed; null if it was several, none, or another pot.</param>
/// <param name="By">By how much: tips, steps of pace, or degrees.</param>
/// <param name="Longer">By how much the white's way after the contact is longer, m.</param>
/// <param name="Moved">Distance between the two places where it stops, m; null if it goes in.</param>
/// <param name="Cushion">The cushion that the white comes off first, before and after the change alike; null if there is none.</param>
/// <param name="WiderDegrees">By how much farther from straight away it comes off that cushion.</param>
public sealed record ChangeResult(StrokeKnob? Knob, double By, double Longer, double? Moved, string? Cushion, double WiderDegrees);

/// <summary>How a ball turns for a while: its angular velocity changes evenly.</summary>
/// <param name="From">s after the strike.</param>
/// <param name="To">s after the strike.</param>
/// <param name="Start">rad/s about x, y and z.</param>
/// <param name="End">rad/s about x, y and z.</param>
public sealed record TurningSpan(double From, double To, IReadOnlyList<double> Start, IReadOnlyList<double> End);

/// <summary>How a ball turns while it moves.</summary>
public sealed record BallTurning(string Ball, IReadOnlyList<TurningSpan> Spans);

/// <summary>What a stroke leaves to look at: what one change did, and how the balls roll and slide.</summary>
public static class TraceEndpoints
{
    public static void MapTraces(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/shot").WithTags("Shots").ProducesProblem(400);
        group.MapPost("/change", Change).WithName("shotChange").WithSummary("What one change of a stroke did to the white's way");
        group
            .MapPost("/windows", Windows)
            .WithName("shotWindows")
            .WithSummary("How far pace, height, side and aim may each be turned until the pot, or what the white is to do, is lost");
        group.MapPost("/turning", Turning).WithName("shotTurning").WithSummary("How the balls of a stroke turn, for the playback");
    }

    /// <exception cref="InputException">The pot that is chosen is not possible.</exception>
    private static async Task<ShotWindows> Windows(WindowsRequest request, HttpContext http, SearchDesk desk)
    {
        var (question, _) = FanEndpoints.Question(request.Content, request.Player, request.Goal, sameAim: false);
        if (question is { Cut.CanBeAimed: false, KeepsAim: false })
            throw new InputException(
                "content.stroke.pot",
                "This pot is not possible from here.",
                "a ball and a pocket that it can go into"
            );
        return await desk.JudgeAsync(http, workers => ShotWindows.Of(question, workers));
    }

    private static ChangeResult Change(ChangeRequest request)
    {
        var player = request.Player.Checked();
        var (now, isPot) = Played(request.Content, player, "content.stroke");
        var (before, wasPot) = Played(request.Content with { Stroke = request.Before }, player, "before");
        var change = StrokeChange.Of(before, now, isPot && wasPot);
        var isSame = request.Content.Stroke.Pot == request.Before.Pot && isPot == wasPot;
        return new(
            Knob: isSame ? change.Knob : null,
            By: isSame ? change.By : 0,
            Longer: change.Longer,
            Moved: change.Moved,
            Cushion: change.Off?.Name(),
            WiderDegrees: change.WiderDegrees
        );
    }

    private static ((Stroke, WhiteWay) Played, bool IsPot) Played(PositionContent content, Core.Players.Player player, string field)
    {
        var one = FieldsUnder.Of("stroke", field, () => CheckedContent.Of(content, player));
        var stroke = one.Aimed()?.Stroke ?? one.Stroke;
        var (simulator, record) = (new Simulator(one.Shape), new ShotRecord());
        stroke.Play(simulator, one.Layout, record);
        return ((stroke, WhiteWay.Of(record, simulator)), one.Pot is not null && !one.IsFree);
    }

    private static List<BallTurning> Turning(ShotRequest request)
    {
        var one = CheckedContent.Of(request.Content, request.Player.Checked());
        var (simulator, record) = (new Simulator(one.Shape), new ShotRecord());
        (one.Aimed()?.Stroke ?? one.Stroke).Play(simulator, one.Layout, record);
        return
        [
            .. record
                .Pieces.GroupBy(p => p.Ball)
                .Select(g => new BallTurning(
                    one.Layout.Balls[g.Key].Ball.Id,
                    [
                        .. g.OrderBy(p => p.Start)
                            .Select(p => new TurningSpan(
                                Math.Round(p.Start, 5),
                                Math.Round(p.End, 5),
                                Rounded(p.Turning.Start),
                                Rounded(p.Turning.End)
                            )),
                    ]
                )),
        ];
    }

    private static IReadOnlyList<double> Rounded(in Spin s) => [Math.Round(s.X, 3), Math.Round(s.Y, 3), Math.Round(s.Z, 3)];
}
