using DeepBaize.Core;
using DeepBaize.Core.Play;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Positions;

/// <summary>The state of a frame on the wire, without loss: what goes to the page and comes back is the same frame.</summary>
public static class FrameEntries
{
    /// <summary>Returns the entry of a situation's frame.</summary>
    public static FrameEntry Of(Situation situation) =>
        new(Of(situation.Frame))
        {
            Offence = situation is { Frame.Offence: { } offence, BeforeOffence: { } before }
                ? new()
                {
                    Miss = offence.IsMiss,
                    Misses = offence.Misses,
                    Before = Of(offence.Before),
                    Balls = [.. before.Balls.Select(BallEntry.Of)],
                }
                : null,
        };

    private static FrameStateEntry Of(Frame f) =>
        new()
        {
            On = f.Exercise is null ? f.On.Name() : null,
            First = f.Scores.First,
            Second = f.Scores.Second,
            Turn = f.Turn,
            Break = f.Break,
            FreeBall = f.FreeBall,
            InHand = f.InHand,
            Misses = f.Misses,
            Respotted = f.IsRespotted,
            AwaitsLot = f.AwaitsLot,
            Winner = f.IsOver ? f.Winner : null,
            Repeats = f.Repeats,
            Exercise = f.Exercise is { } e ? new() { Order = e.Order, Balls = [.. e.Balls.Select(b => b.Id)] } : null,
        };

    /// <summary>Returns the situation of balls and a frame, checked against one another.</summary>
    /// <exception cref="InputException">A frame that cannot be with these balls.</exception>
    public static Situation ToSituation(this FrameEntry entry, Layout layout, TableShape shape)
    {
        if (entry.Offence is not { } told)
            return Situation.Create(layout, Setup(entry, layout));
        var before = Layout.Create(BallEntries.Of(told.Balls), shape, "frame.offence.balls");
        var frame = Situation.Create(before, Setup(told.Before, before), "frame.offence.before").Frame;
        return Situation.Create(layout, Setup(entry, layout, new(told.Miss, frame, told.Misses))) with { BeforeOffence = before };
    }

    private static Exercise? ExerciseOf(ExerciseEntry? entry, Layout layout)
    {
        if (entry is null)
            return null;
        if (entry.Balls is null)
            return new(entry.Order, [.. layout.Balls.Skip(1).Select(b => b.Ball)]);
        var balls = new List<Ball>();
        for (var i = 0; i < entry.Balls.Count; i++)
        {
            if (!Ball.TryParse(entry.Balls[i], out var ball) || layout.SlotOf(ball) < 1)
                throw new InputException(
                    $"frame.exercise.balls[{i}]",
                    "There is no such object ball on the table.",
                    "an object ball that is on the table"
                );
            balls.Add(ball);
        }
        return new(entry.Order, balls);
    }

    private static FrameSetup Setup(FrameStateEntry f, Layout layout, Offence? offence = null) =>
        new()
        {
            On = f.On is null ? null : BallsOn.Named(f.On, "frame.on"),
            First = f.First,
            Second = f.Second,
            Turn = f.Turn,
            Break = f.Break,
            FreeBall = f.FreeBall,
            InHand = f.InHand,
            Misses = f.Misses,
            IsRespotted = f.Respotted,
            AwaitsLot = f.AwaitsLot,
            Winner = f.Winner,
            Repeats = f.Repeats,
            Exercise = ExerciseOf(f.Exercise, layout),
            Offence = offence,
        };
}
