using System.ComponentModel;
using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Planning;

/// <summary>
/// What is on from a place of the white, and how good the place is. The factors are 0–1, the distance
/// m.
/// </summary>
public sealed record QualityResult(
    double Value,
    string? Ball,
    string? Pocket,
    double Chance,
    double CutDegrees,
    double CueBallDistance,
    int Others,
    ReachResult? Reach,
    double Angle,
    double Distance,
    double Cushion
)
{
    public static QualityResult Of(in Quality q, Layout layout) =>
        new(
            Value: q.Pot is null ? 0 : q.Value,
            Ball: q.Pot is { } pot ? layout.Balls[pot.Line.Slot].Ball.Id : null,
            Pocket: q.Pot?.Line.Pocket.Name(),
            Chance: q.Chance,
            CutDegrees: q.Pot?.Cut.Degrees ?? 0,
            CueBallDistance: q.Pot?.CueBallDistance ?? 0,
            Others: q.Others,
            Reach: q.Pot is null ? null : ReachResult.Of(q.Reach),
            Angle: q.Control.Angle,
            Distance: q.Control.Distance,
            Cushion: q.Control.Cushion
        );
}

/// <summary>A stroke that could be played.</summary>
public sealed record ChoiceResult(
    StrokeEntry Stroke,
    string Nominated,
    double CutDegrees,
    Fullness FullnessWord,
    PotKind Kind,
    ReachResult Reach,
    Estimate Chance,
    Estimate Foul,
    Estimate Holds,
    Estimate Value,
    double Gain,
    int Points,
    QualityResult Next,
    IReadOnlyList<string> Cushions,
    IReadOnlyList<string> Balls,
    [property: Description("That the tip slips off the ball; null of plans kept before it was told.")] Estimate? Miscue = null
)
{
    public static ChoiceResult Of(Choice c, Layout layout)
    {
        return new(
            Stroke: StrokeEntries.Of(c.Stroke, c.Pot, layout),
            Nominated: c.Nominated.Id,
            CutDegrees: c.Target.Cut.CutDegrees,
            FullnessWord: c.Target.Cut.Fullness,
            Kind: c.Target.Cut.Kind,
            Reach: ReachResult.Of(c.Reach),
            Chance: c.Odds.Chance,
            Foul: c.Odds.Foul,
            Holds: c.Odds.Holds,
            Value: c.Value,
            Gain: c.Gain,
            Points: c.Outcome.Ruling.Points,
            Next: QualityResult.Of(c.Next, c.Leaves.Layout),
            Cushions: [.. c.Route.Cushions.Select(x => x.Name())],
            Balls: [.. c.Route.Balls.Select(b => layout.Balls[b].Ball.Id)],
            Miscue: c.Odds.Miscue
        );
    }
}

/// <summary>
/// How many more reds a stroke into a pack makes free: in nine strokes of ten at least and at most so many, and the commonest number.
/// </summary>
public sealed record PackOpeningResult(int Least, int Most, int Mostly, Estimate Mean)
{
    public static PackOpeningResult? Of(PackOpening? o) => o is null ? null : new(o.Least, o.Most, o.Mostly, o.Mean);
}

/// <summary>Why a shot is played as it is, or what speaks against it; what its figures mean depends on the code.</summary>
public sealed record ReasonResult(
    ReasonCode Code,
    string? Ball,
    string? Pocket,
    double Amount,
    double Other,
    [property: Description("Of a pack that is opened.")] PackOpeningResult? Opens
)
{
    public static ReasonResult Of(Reason r) => new(r.Code, r.Ball?.Id, r.Pocket?.Name(), r.Amount, r.Other, PackOpeningResult.Of(r.Range));
}

/// <summary>If the stroke is a usual error of pace off; m.</summary>
public sealed record CoverResult(double X, double Y, bool Scores, string? Ball, string? Pocket, double Chance)
{
    public static CoverResult Of(CoverOutcome c) => new(c.White.X, c.White.Y, c.Scores, c.Next?.Id, c.Pocket?.Name(), c.Chance);
}

/// <summary>The side on which a pot is missed more often, and what that costs.</summary>
/// <param name="IsThick">Whether it is the thick side.</param>
/// <param name="Share">Of all strokes.</param>
/// <param name="Cost">By how much it is worth less than a stroke that scores, in the measure of the answer.</param>
/// <param name="LeavesPot">Of these misses, the share that leaves the other player a pot better than even.</param>
public sealed record LikeliestMissResult(bool IsThick, Estimate Share, Estimate Cost, Estimate LeavesPot);

/// <summary>The knob that a stroke minds most, and the window in which it may be turned alone.</summary>
/// <param name="Loss">Mean loss by the player's usual error, in the measure of the answer.</param>
/// <param name="Down">How far it may be turned down: degrees to the right, steps of pace, or tips (to the left).</param>
/// <param name="Up">How far it may be turned up: degrees to the left, steps of pace, or tips (to the right).</param>
/// <param name="Error">The player's usual error, in the same unit.</param>
public sealed record KnobWindowResult(Knob Knob, double Loss, double Down, double Up, double Error);

/// <summary>A second ball that the white runs into.</summary>
/// <param name="Fullness">1 full, 0 hardly.</param>
/// <param name="Speed">Of the approach, m/s.</param>
/// <param name="Moved">Number of balls that it moves, besides the one that is potted.</param>
/// <param name="Freed">Number of balls that have a way into a pocket only then.</param>
/// <param name="Hit">Share of the strokes in which the white meets this ball.</param>
/// <param name="Sticks">Share in which the white stops by a ball with no pot better than even.</param>
/// <param name="On">Share after which a pot better than even is on.</param>
public sealed record CannonResult(
    string Ball,
    double Fullness,
    Fullness FullnessWord,
    double Speed,
    int Moved,
    int Freed,
    Estimate Hit,
    Estimate Sticks,
    Estimate On
);

/// <summary>What small errors do to a shot.</summary>
/// <param name="Miss">Null if no stroke was missed.</param>
/// <param name="Window">Null if the shot fails even without error.</param>
/// <param name="Cannon">Null if the white meets no second ball.</param>
public sealed record ShotStudyResult(LikeliestMissResult? Miss, KnobWindowResult? Window, CannonResult? Cannon)
{
    public static ShotStudyResult? Of(ShotStudy? study) =>
        study is not { } s
            ? null
            : new(
                s.Miss is { } m ? new(m.IsThick, m.Share, m.Cost, m.LeavesPot) : null,
                s.Window is { } w ? new(w.Knob, w.Loss, w.Down, w.Up, w.Error) : null,
                s.Cannon is { } c
                    ? new(c.Ball.Id, c.Fullness, Fullnesses.Nearest(c.Fullness), c.Speed, c.Moved, c.Freed, c.Hit, c.Sticks, c.On)
                    : null
            );
}

/// <summary>A shot of a plan.</summary>
/// <param name="Content">The table it is played from, with the stroke.</param>
/// <param name="Points">Of the break after it.</param>
public sealed record PlanShotResult(
    PositionContent Content,
    ChoiceResult Choice,
    Estimate Alive,
    int Points,
    Arrival? Arrival,
    IReadOnlyList<PointEntry> Path,
    IReadOnlyList<PlaceResult> Area,
    CoverResult Long,
    CoverResult Short,
    IReadOnlyList<WarningResult> Warnings,
    IReadOnlyList<ReasonResult> Reasons,
    [property: Description("What small errors do to it; null until the search has ended.")] ShotStudyResult? Study = null,
    [property: Description("Where the reds lie before it, by parts of the table.")] RedSpread? RedsBefore = null,
    [property: Description("Where the reds lie after it, if it goes as meant.")] RedSpread? RedsAfter = null
)
{
    public static PlanShotResult Of(PlanShot s, PositionContent origin)
    {
        var layout = s.Before.Layout;
        var choice = ChoiceResult.Of(s.Choice, layout);
        var content = origin with
        {
            Balls = [.. layout.Balls.Select(BallEntry.Of)],
            Stroke = choice.Stroke,
            Frame = FrameEntries.Of(s.Before),
        };
        return new(
            Content: content,
            Choice: choice,
            Alive: s.Alive,
            Points: s.Points,
            Arrival: s.Drawing.Arrival,
            Path: [.. s.Drawing.WhitePath.Select(PointEntry.Of)],
            Area: [.. s.Drawing.Area.Select(PlaceResult.Rounded)],
            Long: CoverResult.Of(s.Cover.Long),
            Short: CoverResult.Of(s.Cover.Short),
            Warnings: [.. s.Warnings.Select(WarningResult.Of)],
            Reasons: [.. s.Reasons.Select(ReasonResult.Of)],
            Study: ShotStudyResult.Of(s.Study),
            RedsBefore: s.RedsBefore,
            RedsAfter: s.RedsAfter
        );
    }
}

/// <summary>Where a break turns to safety, because the next pot is worth less.</summary>
/// <param name="Content">The table then, with the safety's stroke.</param>
/// <param name="Ball">The ball that the safety strikes.</param>
/// <param name="LeftSide">Of the ball as the player sees it.</param>
/// <param name="Value">Of the safety, in the measure of the answer.</param>
/// <param name="PotValue">Of the best pot instead; null if none is on.</param>
public sealed record SafetyTurnResult(
    PositionContent Content,
    string Ball,
    Fullness FullnessWord,
    bool LeftSide,
    StrokeEntry Stroke,
    IReadOnlyList<string> Cushions,
    double Value,
    double? PotValue
)
{
    public static SafetyTurnResult? Of(SafetyTurn? t, PositionContent origin)
    {
        if (t is null)
            return null;
        var (layout, safety) = (t.Before.Layout, t.Safety);
        var stroke = StrokeEntries.Free(safety.Stroke);
        return new(
            Content: origin with
            {
                Balls = [.. layout.Balls.Select(BallEntry.Of)],
                Stroke = stroke,
                Frame = FrameEntries.Of(t.Before),
            },
            Ball: layout.Balls[safety.Slot].Ball.Id,
            FullnessWord: Fullnesses.Nearest(1 - Math.Abs(safety.Offset)),
            LeftSide: safety.Offset > 0,
            Stroke: stroke,
            Cushions: [.. safety.Route.Cushions.Select(c => c.Name())],
            Value: t.Value,
            PotValue: t.PotValue
        );
    }
}

/// <summary>A break, several shots ahead.</summary>
public sealed record PlanResult(
    IReadOnlyList<PlanShotResult> Shots,
    Prospect? Prospect,
    bool IsComplete,
    [property: Description("What the break turns to after the last shot; null if it goes on, or nothing is left.")]
        SafetyTurnResult? Turn = null,
    [property: Description("Names the plan by its first shot: the same while the search goes on.")] string Id = ""
);

/// <summary>A first shot that could be played, beside the best one.</summary>
/// <param name="Value">What breaks that begin with it come to, in the measure of the answer: by this they are ranked.</param>
/// <param name="Points">What they make.</param>
/// <param name="IsLevel">The strokes played cannot tell it from the best.</param>
/// <param name="Id">Of the plan that begins with it.</param>
public sealed record AlternativeResult(ChoiceResult Choice, Shortfall Below, Estimate Value, Estimate Points, bool IsLevel, string Id = "");

/// <summary>An event of the stream: how far a plan is, or when it will begin.</summary>
/// <param name="Wait">Only while the plan cannot begin yet.</param>
/// <param name="Examined">Number of positions examined.</param>
/// <param name="Share">Of the work, 0–1; 1 is the last event.</param>
/// <param name="Looked">
/// Of the strokes looked at on an ordinary table, the share that was: below 1 on a table where balls run too long.
/// </param>
/// <param name="Plans">The best so far, best first; none if nothing is on.</param>
public sealed record PlansProgress(
    SearchWait? Wait,
    long Examined,
    double Share,
    double Looked,
    [property: Description("The measure of values: win, points or target.")] string Unit,
    [property: Description("Standard error of the measure itself, beside that of the breaks played.")] double ModelError,
    IReadOnlyList<PlanResult> Plans,
    IReadOnlyList<AlternativeResult> Alternatives
) : ISearchProgress<PlansProgress>
{
    /// <summary>Where the search is; null of a kept plan.</summary>
    public SearchStatus? Status { get; init; }

    /// <inheritdoc/>
    public PlansProgress With(SearchStatus status) => this with { Status = status };

    public static PlansProgress Of(PlanProgress p, PositionContent from, Layout layout) =>
        new(
            null,
            p.Examined,
            p.Share,
            p.Looked,
            p.Unit,
            p.ModelError,
            [
                .. p.Plans.Select(plan => new PlanResult(
                    [.. plan.Shots.Select(s => PlanShotResult.Of(s, from))],
                    plan.Prospect,
                    plan.IsComplete,
                    SafetyTurnResult.Of(plan.Turn, from),
                    plan.Id
                )),
            ],
            [
                .. p.Alternatives.Select(a => new AlternativeResult(
                    ChoiceResult.Of(a.Choice, layout),
                    a.Below,
                    a.Value,
                    a.Points,
                    a.IsLevel,
                    a.Choice.Id
                )),
            ]
        );
}

/// <summary>A frame as it stands.</summary>
/// <param name="Ahead">By how much the player at the table leads; negative if behind.</param>
/// <param name="ToWin">
/// Points that the player at the table still needs, so that the other cannot catch up without penalties; 0 if that is so.
/// </param>
/// <param name="SnookersRequired">Penalties of four needed to draw level with all that is left.</param>
/// <param name="OnBalls">The ids of the balls that may be potted next.</param>
public sealed record FrameResult(
    string On,
    IReadOnlyList<string> OnBalls,
    int First,
    int Second,
    int Turn,
    int Break,
    bool FreeBall,
    bool Repeats,
    int Reds,
    int PointsLeft,
    int Ahead,
    int ToWin,
    int SnookersRequired,
    int HighestBreak,
    bool IsOver,
    int Winner,
    [property: Description("Misses in this turn of unbroken replays; after two the next one gives the frame.")] int Misses,
    [property: Description("Whether the last stroke was a foul that the player at the table may answer.")] bool MayAskAgain,
    [property: Description("Whether a miss was called, so that the balls may be put back.")] bool MayPutBack,
    [property: Description("Whether the black was spotted again after level scores.")] bool IsRespotted,
    [property: Description("Whether it is still to be drawn by lot who plays first.")] bool AwaitsLot,
    [property: Description("In an exercise the order of its balls; null in a frame.")] ExerciseOrder? Exercise,
    [property: Description("Balls on the table that can be on after a pot of the ball on.")] IReadOnlyList<string> MayFollow
)
{
    public static FrameResult Of(Situation s)
    {
        var f = s.Frame;
        return new(
            f.On.Name(),
            [.. s.OnSlots().Select(i => s.Layout.Balls[i].Ball.Id)],
            f.Scores.First,
            f.Scores.Second,
            f.Turn,
            f.Break,
            f.FreeBall,
            f.Repeats,
            f.Reds,
            f.PointsLeft,
            f.Lead,
            f.PointsToWin,
            f.SnookersRequired,
            f.HighestBreak,
            f.IsOver,
            f.Winner,
            f.Misses,
            f.Offence is not null,
            f.Offence is { IsMiss: true },
            f.IsRespotted,
            f.AwaitsLot,
            f.Exercise?.Order,
            [.. s.Layout.Balls.Skip(1).Select(b => b.Ball).Where(f.MayFollow).Select(b => b.Id)]
        );
    }
}
