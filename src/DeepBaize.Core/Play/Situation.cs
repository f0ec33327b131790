using DeepBaize.Core.Physics;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Play;

/// <summary>What came of a stroke: how it is ruled, and the table for the next.</summary>
/// <param name="Leaves">The table as it is then.</param>
public sealed record PlayedStroke(Ruling Ruling, Situation Leaves);

/// <summary>The balls as they lie, and the frame that they are in.</summary>
public sealed record Situation
{
    // Two balls this near touch, as a referee would rule; m.
    private const double NearEnough = 1e-5;

    private Situation(Layout layout, Frame frame) => (Layout, Frame) = (layout, frame);

    /// <summary>The balls.</summary>
    public Layout Layout { get; }

    /// <summary>The state of the frame.</summary>
    public Frame Frame { get; }

    /// <summary>The balls before the foul that the striker may answer; null if the last stroke was none.</summary>
    public Layout? BeforeOffence { get; init; }

    /// <summary>The frame is taken from the balls that are there and from what is said beside them, and checked.</summary>
    /// <param name="setup">Null: a frame in which nobody has scored.</param>
    /// <exception cref="InputException">A state that cannot be.</exception>
    public static Situation Create(Layout layout, FrameSetup? setup = null, string path = "frame")
    {
        var reds = layout.Balls.Count(b => b.Ball.IsRed);
        List<Ball> colours = [.. layout.Balls.Where(b => b.Ball.IsColour).Select(b => b.Ball)];
        return new(layout, Frame.Create(reds, colours, setup ?? new(), path));
    }

    /// <summary>
    /// The balls without a word about a frame: one in which nobody has scored, or, where the balls cannot be those of a frame, an exercise
    /// with any ball on.
    /// </summary>
    /// <exception cref="InputException">There is no object ball.</exception>
    public static Situation OfBalls(Layout layout, string path = "frame")
    {
        List<Ball> balls = [.. layout.Balls.Skip(1).Select(b => b.Ball)];
        List<Ball> colours = [.. balls.Where(b => b.IsColour).OrderBy(Values.Of)];
        var isFrame = balls.Count == 0 || Frame.MayHave(balls.Count - colours.Count, colours);
        return Create(layout, isFrame ? null : new() { Exercise = new(ExerciseOrder.Any, balls) }, path);
    }

    /// <summary>Slots of the balls that may be potted next: those on, and with a free ball all of them.</summary>
    public IEnumerable<int> OnSlots()
    {
        for (var slot = 1; slot < Layout.Balls.Count; slot++)
            if (Frame.MayPlay(Layout.Balls[slot].Ball))
                yield return slot;
    }

    /// <summary>
    /// Rules on a stroke that was simulated from here: balls that stay down are gone, colours are spotted, and a white that went in lies in
    /// the
    /// D.
    /// </summary>
    /// <param name="after">The simulator as the stroke left it.</param>
    /// <param name="record">Of the same stroke.</param>
    /// <param name="nominated">The colour, or the free ball, that the striker plays for.</param>
    /// <param name="missCalled">Whether the referee calls a miss if no ball on is struck first.</param>
    /// <exception cref="InputException">A miss is called that may not be.</exception>
    public PlayedStroke Play(Simulator after, ShotRecord record, Ball? nominated, TableShape shape, bool missCalled = false)
    {
        var ruling = Referee.Rule(Frame, FactsOf(after, record, nominated, missCalled));
        var frame = ruling.NextFrame;
        var left = after.Left();
        // A black that is spotted again goes to its spot from wherever it lies, and the white into the D (rule 4).
        if (frame.AwaitsLot)
            left.RemoveAll(b => b.Ball == Ball.White || b.Ball == Ball.Black);
        if (ruling.Spotted.Count > 0)
            left.AddRange(Spotting.Place(ruling.Spotted, left));
        if (!after.IsOnTable(0) || frame.AwaitsLot)
        {
            // From hand: behind the middle of the baulk line, or as near to that as can be.
            var middle = DCentre with
            {
                X = BaulkLineX - DRadius / 3,
            };
            left.Add(new(Ball.White, Placement.Nearest(middle, left, shape, inD: true) ?? middle));
        }
        var layout = Layout.OfRest(left);
        // Whether there is a free ball is seen only once the colours are back (rule 12).
        if (ruling.IsFoul && !frame.IsOver && !frame.AwaitsLot && frame.Exercise is null)
            frame = frame with { FreeBall = IsHidden(layout, frame) };
        var leaves = new Situation(layout, frame) { BeforeOffence = frame.Offence is null ? null : Layout };
        return new(ruling with { NextFrame = frame }, leaves);
    }

    /// <summary>After a foul the other player asks the offender to play again from here (rule 13).</summary>
    /// <exception cref="InvalidOperationException">The last stroke was no foul.</exception>
    public Situation PlayAgain() => new(Layout, Frame.PlayAgain());

    /// <summary>After a miss the other player has the balls put back, and the offender play again from there (rule 14).</summary>
    /// <exception cref="InvalidOperationException">No miss was called, or the table before it is not known.</exception>
    public Situation Replay() =>
        new(BeforeOffence ?? throw new InvalidOperationException("The table before the foul is not known."), Frame.Replay());

    /// <summary>The lot is drawn for a black that was spotted again (rule 4).</summary>
    /// <exception cref="InvalidOperationException">There is no lot to draw.</exception>
    public Situation PlaysFirst(int player) => new(Layout, Frame.PlaysFirst(player));

    /// <summary>A ball that the white touches, one that is on rather than another; null if it touches none (rule 8).</summary>
    public Ball? Touching =>
        Layout.Balls.Skip(1).Where(IsTouching).OrderBy(b => Frame.IsOn(b.Ball) ? 0 : 1).Select(b => (Ball?)b.Ball).FirstOrDefault();

    /// <summary>Whether the white touches it, and so has to be played away from it.</summary>
    public bool IsTouching(PlacedBall ball) => ball.Gap(Layout.White.At) < NearEnough;

    /// <summary>Returns this situation with the white at another place, as from hand.</summary>
    public Situation WithWhiteAt(Vec2 place) => new(Layout.OfRest([new(Ball.White, place), .. Layout.Balls.Skip(1)]), Frame);

    /// <summary>Returns this situation with another ball on.</summary>
    public Situation Meaning(BallOn on) => new(Layout, Frame with { On = on, FreeBall = false, Exercise = null });

    /// <summary>Whether no ball that is on, or with a free ball any, can be struck straight on both its edges.</summary>
    public bool IsSnookered => IsSnookeredOn(Layout, Frame.MayPlay);

    // ---- The facts of a stroke ---------------------------------------------------------------------------------

    private StrokeFacts FactsOf(Simulator after, ShotRecord record, Ball? nominated, bool missCalled)
    {
        List<Ball> potted = [],
            off = [];
        for (var slot = 0; slot < after.Count; slot++)
            if (after.IsOff(slot))
                off.Add(after.BallIn(slot));
            else if (!after.IsOnTable(slot))
                potted.Add(after.BallIn(slot));
        var over = Contacts.JumpedOver(record, Layout);
        var (first, with, pushed) = FirstStruck(record);
        var behindFree =
            Frame.FreeBall
            && nominated is { } free
            && !Frame.IsOn(free)
            && after.IsOnTable(0)
            && IsSnookeredBehind(Layout.OfRest(after.Left()), free);
        return new(first, potted, nominated)
        {
            WithFirst = with,
            OffTable = off,
            JumpedOver = over > 0 ? Layout.Balls[over].Ball : null,
            Touching = TouchingBalls(),
            Other = pushed,
            SnookersBehindFreeBall = behindFree,
            // Asked of every stroke of a search, it would cost more than the rest of the ruling.
            FullBallOpen = (missCalled || Frame.Misses > 0) && IsFullBallOpen(),
            MissCalled = missCalled,
        };
    }

    /// <summary>The ball that the white struck first, one struck at the same moment, and a touching ball that was pushed.</summary>
    private (Ball? First, Ball? With, Ball? Pushed) FirstStruck(ShotRecord record)
    {
        const double sameMoment = 1e-9;
        Ball? first = null;
        var time = double.NaN;
        var isBack = false;
        foreach (var e in record.Events)
        {
            isBack |= e is { Ball: 0, Kind: ShotEventKind.Cushion or ShotEventKind.Jaw };
            if (!e.IsOfWhiteWithBall)
                continue;
            var ball = Layout.Balls[e.Ball + e.Other];
            if (first is not null)
                return (first, e.Time - time < sameMoment && ball.Ball != first ? ball.Ball : null, null);
            // Struck on to what it touches, the white pushes it; coming back to it off a cushion it does not.
            if (!isBack && IsTouching(ball))
                return (ball.Ball, null, ball.Ball);
            (first, time) = (ball.Ball, e.Time);
        }
        return (first, null, null);
    }

    private IReadOnlyList<Ball> TouchingBalls()
    {
        List<Ball>? touching = null;
        for (var slot = 1; slot < Layout.Balls.Count; slot++)
            if (IsTouching(Layout.Balls[slot]))
                (touching ??= []).Add(Layout.Balls[slot].Ball);
        return touching ?? (IReadOnlyList<Ball>)[];
    }

    private bool IsFullBallOpen()
    {
        List<PlacedBall> balls = [.. Layout.Balls.Skip(1)];
        return Snooker.IsFullBallOpen(Layout.White.At, balls, Slots(balls, Frame.MayPlay));
    }

    private static bool IsSnookeredOn(Layout layout, Func<Ball, bool> isOn)
    {
        List<PlacedBall> balls = [.. layout.Balls.Skip(1)];
        return Snooker.IsSnookered(layout.White.At, balls, Slots(balls, isOn));
    }

    /// <summary>Whether the next striker is snookered: from where the white lies, or, in hand, from wherever in the D it could.</summary>
    public static bool IsHidden(Layout layout, Frame frame)
    {
        if (!frame.InHand)
            return IsSnookeredOn(layout, frame.IsOn);
        List<PlacedBall> balls = [.. layout.Balls.Skip(1)];
        return Snooker.IsSnookeredInHand(balls, Slots(balls, frame.IsOn));
    }

    private static List<int> Slots(List<PlacedBall> balls, Func<Ball, bool> which) =>
        [.. Enumerable.Range(0, balls.Count).Where(i => which(balls[i].Ball))];

    /// <summary>Whether the white is snookered after the stroke, and would not be but for the free ball.</summary>
    private bool IsSnookeredBehind(Layout left, Ball free)
    {
        var on = Frame.Reds > 0 ? BallOn.Red : BallsOn.Only(Frame.Colours[0]);
        bool IsOn(Ball ball) => on.Includes(ball);
        return IsSnookeredOn(left, IsOn) && !IsSnookeredOn(Layout.OfRest([.. left.Balls.Where(b => b.Ball != free)]), IsOn);
    }
}
