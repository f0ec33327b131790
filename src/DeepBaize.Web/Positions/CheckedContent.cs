using DeepBaize.Core;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Positions;

/// <summary>A position's content after every check the core makes of it.</summary>
/// <param name="Cut">The geometry of the pot that is chosen; null if none is.</param>
/// <param name="Frame">The frame as it was sent; <see cref="ToSituation"/> checks it against the balls.</param>
public sealed record CheckedContent(Layout Layout, TableShape Shape, Stroke Stroke, bool IsFree, Cut? Cut, FrameEntry? Frame)
{
    /// <summary>The stroke with its own or the natural elevation, whatever lies in the cue's way: for questions about other aims.</summary>
    public required Stroke Unraised { get; init; }

    /// <summary>The pot that is chosen, if any.</summary>
    public Pot? Pot { get; private init; }

    /// <param name="player">Whose cue it is; the default one's where it makes no difference.</param>
    /// <exception cref="InputException">Anything in it that cannot be.</exception>
    public static CheckedContent Of(PositionContent content, Player? player = null)
    {
        var shape = new TableShape(Conditions.With(content.Conditions));
        var layout = Layout.Create(BallEntries.Of(content.Balls), shape);
        player ??= Player.Default;
        var stroke = content.Stroke.ToStroke(player.NaturalElevation);
        stroke.ToStrike();
        Stroke AsTheCueLies(double aim) =>
            content.Stroke.Elevation is null
                ? stroke with
                {
                    ElevationDegrees = Reach.ButtFor(layout, stroke with { AimDegrees = aim }, player),
                }
                : stroke;
        if (content.Frame is { } frame)
            CheckFrame(frame);
        var isFree = content.Stroke.Free;
        if (content.Stroke.Pot is not { } pot)
            return new(layout, shape, AsTheCueLies(stroke.AimDegrees), isFree, null, content.Frame) { Unraised = stroke };
        var meant = new MeantPot(pot.Ball, pot.Pocket, pot.Part, pot.Through, pot.Off).In(layout, "stroke.pot");
        var cut = Core.Strokes.Cut.Of(layout, meant, shape);
        var asItLies = AsTheCueLies(isFree ? stroke.AimDegrees : cut.AimDegrees);
        return new(layout, shape, asItLies, isFree, cut, content.Frame) { Unraised = stroke, Pot = meant };
    }

    /// <summary>What can be seen of a frame without its balls; the rest when it is asked about.</summary>
    private static void CheckFrame(FrameEntry frame)
    {
        const int most = 999;
        if (frame.On is { } on)
            BallsOn.Named(on, "frame.on");
        var checks = new Checks("frame");
        checks.Range("first", frame.First, 0, most);
        checks.Range("second", frame.Second, 0, most);
        checks.Range("turn", frame.Turn, 0, 1);
        checks.Range("break", frame.Break, 0, most);
        checks.ThrowIfAny();
    }

    /// <summary>The balls with the frame they are in, or without one an exercise.</summary>
    /// <exception cref="InputException">A frame that cannot be with these balls.</exception>
    public Situation ToSituation() => Frame?.ToSituation(Layout, Shape) ?? Situation.OfBalls(Layout);

    /// <exception cref="InputException">None is chosen.</exception>
    public Pot ThePot() => Pot ?? throw new InputException("content.stroke.pot", "No pot is chosen.", "a ball and a pocket");

    /// <summary>
    /// The pot's geometry, the aim that does it if there is one, and the stroke aimed: by that aim, by the ghost ball for want of it, or
    /// freely. Null if no pot is chosen.
    /// </summary>
    public (Cut Cut, double? Found, Stroke Stroke)? Aimed()
    {
        if (Cut is not { } cut)
            return null;
        var found = cut.CanBeAimed ? PotAim.Find(Layout, cut, Stroke, Shape) : null;
        return (cut, found, IsFree || !cut.CanBeAimed ? Stroke : Stroke with { AimDegrees = found ?? cut.AimDegrees });
    }

    /// <summary>What comes of a stroke from there by the rules, played for the chosen pot if there is one.</summary>
    /// <exception cref="InputException">The frame is over, or a miss is called that may not be.</exception>
    public PlayedStroke PlayedFrom(Situation situation, in Stroke stroke, bool missCalled = false)
    {
        if (situation.Frame.IsOver)
            throw new InputException("content.frame", "The frame is over.", "a frame under way");
        if (situation.Frame.AwaitsLot)
            throw new InputException("content.frame.awaitsLot", "It is not yet drawn who plays first at the black.", "firstPlayer 0 or 1");
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, situation.Layout, record);
        return situation.Play(simulator, record, Pot is { } pot ? situation.Layout.Balls[pot.Slot].Ball : null, Shape, missCalled);
    }
}
