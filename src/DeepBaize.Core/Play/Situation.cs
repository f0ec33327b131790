using DeepBaize.Core.Physics;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Play;

/// <summary>What came of a stroke: how it is ruled, and the table for the next.</summary>
/// <param name="Leaves">The table as it is then.</param>
public sealed record Played(Ruling Ruling, Situation Leaves);

/// <summary>The balls as they lie, and the frame that they are in.</summary>
public sealed record Situation
{
    // Two balls this near touch, as a referee would rule; m.
    private const double NearEnough = 1e-5;

    private Situation(Layout layout, Frame frame) => (Layout, Frame) = (layout, frame);

    public Layout Layout { get; }
    public Frame Frame { get; }

    /// <summary>The frame is taken from the balls that are there and from what is said beside them, and checked.</summary>
    /// <param name="on">Null: a red while there is one, else the colour of the least value.</param>
    /// <exception cref="InputException">A state that cannot be.</exception>
    public static Situation Create(
        Layout layout,
        BallOn? on = null,
        int first = 0,
        int second = 0,
        int turn = 0,
        int breakPoints = 0,
        bool freeBall = false,
        bool repeats = false,
        string path = "frame"
    )
    {
        var reds = layout.Balls.Count(b => b.Ball.IsRed);
        List<Ball> colours = [.. layout.Balls.Where(b => b.Ball.IsColour).Select(b => b.Ball)];
        var due = on ?? (reds > 0 || colours.Count == 0 ? BallOn.Red : BallsOn.Only(colours.MinBy(Values.Of)));
        return new(layout, Frame.Create(reds, colours, due, first, second, turn, breakPoints, freeBall, repeats: repeats, path: path));
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
    /// the D.
    /// </summary>
    /// <param name="after">The simulator as the stroke left it.</param>
    /// <param name="record">Of the same stroke.</param>
    /// <param name="nominated">The colour, or the free ball, that the striker plays for.</param>
    public Played Play(Simulator after, ShotRecord record, Ball? nominated, TableShape shape)
    {
        var facts = FactsOf(after, record, nominated);
        var ruling = Frame.Play(facts);
        List<PlacedBall> left = [];
        for (var slot = 0; slot < after.Count; slot++)
            if (after.PocketOf(slot) is null)
                left.Add(new(after.BallIn(slot), after.At(slot)));
        if (ruling.Spotted.Count > 0)
            left.AddRange(Spotting.Place(ruling.Spotted, left));
        if (after.PocketOf(0) is not null)
        {
            // From hand: behind the middle of the baulk line, or as near to that as can be.
            var middle = DCentre with
            {
                X = BaulkLineX - DRadius / 3,
            };
            left.Add(new(Ball.White, Placement.Nearest(middle, left, shape, inD: true) ?? middle));
        }
        var layout = Layout.OfRest(left);
        var frame = ruling.NextFrame;
        if (ruling.IsFoul && !frame.IsOver)
            frame = frame with { FreeBall = !frame.InHand && LeavesSnookered(layout, frame.On) };
        return new(ruling with { NextFrame = frame }, new(layout, frame));
    }

    /// <summary>A ball that the white touches, one that is on rather than another; null if it touches none (rule 8).</summary>
    public Ball? Touching =>
        Layout.Balls.Skip(1).Where(IsTouching).OrderBy(b => Frame.On.Includes(b.Ball) ? 0 : 1).Select(b => (Ball?)b.Ball).FirstOrDefault();

    /// <summary>Whether the white touches it, and so has to be played away from it.</summary>
    public bool IsTouching(PlacedBall ball) => ball.Gap(Layout.White.At) < NearEnough;

    /// <summary>The same balls with another one on: for questions about that.</summary>
    public Situation Meaning(BallOn on) => new(Layout, Frame with { On = on, FreeBall = false });

    private StrokeFacts FactsOf(Simulator after, ShotRecord record, Ball? nominated)
    {
        var potted = new List<Ball>();
        for (var slot = 0; slot < after.Count; slot++)
            if (after.PocketOf(slot) is not null)
                potted.Add(after.BallIn(slot));
        Ball? first = null,
            with = null,
            disturbed = null;
        // A touching ball that is on counts as struck, whatever the white does next; it must be played away from (rule 8).
        for (var slot = 1; slot < Layout.Balls.Count; slot++)
        {
            var ball = Layout.Balls[slot].Ball;
            if (IsTouching(Layout.Balls[slot]) && (Frame.On.Includes(ball) || ball == nominated))
                first ??= ball;
        }
        var time = double.NaN;
        var isBack = false;
        foreach (var e in record.Events)
        {
            isBack |= e is { Ball: 0, Kind: ShotEventKind.Cushion or ShotEventKind.Jaw };
            if (e.Kind != ShotEventKind.Ball || (e.Ball != 0 && e.Other != 0))
                continue;
            var ball = Layout.Balls[e.Ball + e.Other].Ball;
            if (double.IsNaN(time))
            {
                time = e.Time;
                // Struck on to what it touches, the white pushes it; coming back to it off a cushion it does not.
                if (!isBack && IsTouching(Layout.Balls[e.Ball + e.Other]))
                    disturbed = ball;
                first ??= ball;
            }
            else if (e.Time - time < 1e-9 && ball != first)
                with ??= ball;
            else
                break;
        }
        var behindFree =
            Frame.FreeBall && nominated is { } free && !Frame.On.Includes(free) && after.PocketOf(0) is null && SnookersBehind(after, free);
        return new(first, potted, nominated, null, behindFree, disturbed, with);
    }

    /// <summary>Whether no ball that is on, or with a free ball any, can be struck straight on both its edges.</summary>
    public bool IsSnookered
    {
        get
        {
            List<PlacedBall> balls = [.. Layout.Balls.Skip(1)];
            return Snooker.IsSnookered(Layout.White.At, balls, [.. OnSlots().Select(s => s - 1)]);
        }
    }

    private static bool LeavesSnookered(Layout layout, BallOn on)
    {
        List<PlacedBall> balls = [.. layout.Balls.Skip(1)];
        return Snooker.IsSnookered(layout.White.At, balls, [.. Enumerable.Range(0, balls.Count).Where(i => on.Includes(balls[i].Ball))]);
    }

    /// <summary>Whether the white is snookered after the stroke, and would not be but for the free ball.</summary>
    private bool SnookersBehind(Simulator after, Ball free)
    {
        List<PlacedBall> left = [];
        for (var slot = 0; slot < after.Count; slot++)
            if (after.PocketOf(slot) is null)
                left.Add(new(after.BallIn(slot), after.At(slot)));
        var on = Frame.Reds > 0 ? BallOn.Red : BallsOn.Only(Frame.Colours[0]);
        return LeavesSnookered(Layout.OfRest(left), on) && !LeavesSnookered(Layout.OfRest([.. left.Where(b => b.Ball != free)]), on);
    }
}
