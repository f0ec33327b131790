using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Strokes;

/// <summary>
/// Plays strokes at one pot, other balls taken as out of the way, and tells where the object ball goes. One instance serves one thread.
/// </summary>
public sealed class PotTrial
{
    private readonly Simulator _simulator;
    private readonly PlacedBall[] _balls,
        _jittered;
    private readonly uint _touching;
    private readonly Cut _cut;
    private readonly PocketShape _pocket;
    private readonly int _target;
    private readonly Func<bool> _isSent,
        _isDecided,
        _isDecidedAsMeant;

    /// <summary>Creates a trial of a pot on a table, the other balls out of the way.</summary>
    public PotTrial(Layout layout, in Cut cut, TableShape shape)
        : this(
            cut,
            shape,
            cut.Pot.IsPlant
                ? [layout.White, layout.Balls[cut.Pot.Through], layout.Balls[cut.Pot.Slot]]
                : [layout.White, layout.Balls[cut.Pot.Slot]]
        )
    { }

    /// <summary>Of a direct pot.</summary>
    public PotTrial(PlacedBall cueBall, PlacedBall objectBall, in Cut cut, TableShape shape)
        : this(cut, shape, [cueBall, objectBall]) { }

    private PotTrial(in Cut cut, TableShape shape, PlacedBall[] balls)
    {
        (_simulator, _balls, _cut, _pocket, _target) = (new(shape), balls, cut, shape.PocketShapes[(int)cut.Pocket], balls.Length - 1);
        (_jittered, _touching) = ([.. balls], Jitter.Touching(balls));
        (_isSent, _isDecided, _isDecidedAsMeant) = (
            IsSent,
            IsDecided,
            () => IsDecided() || (Record.Events.Count > 0 && IsElsewhere(Record.Events[^1]))
        );
    }

    /// <summary>What the last stroke did.</summary>
    public ShotRecord Record { get; } = new();

    /// <summary>The conditions of the table.</summary>
    public Conditions Conditions => _simulator.Conditions;

    /// <summary>From the cue ball's centre to that of the ball it is to strike: its direction, degrees, and how far it is, m.</summary>
    public double FullDegrees => (_balls[1].At - _balls[0].At).Direction.Degrees;

    /// <inheritdoc cref="FullDegrees"/>
    public double Distance => _balls[0].At.DistanceTo(_balls[1].At);

    /// <summary>Whether the cue ball, aimed so, gets as far as the ball that it is to strike, whether or not it meets it.</summary>
    public bool Arrives(in Stroke stroke, double aimDegrees)
    {
        Play(Launch(stroke with { AimDegrees = aimDegrees }), null);
        foreach (var e in Record.Events)
            if (e.Kind == ShotEventKind.Ball || (e.Ball == 0 && e.At.DistanceTo(_balls[0].At) > Distance - 2 * Dimensions.BallRadius))
                return true;
        return false;
    }

    /// <summary>Whether a stroke pots the ball into the pocket, on whatever way.</summary>
    public bool Pots(in Stroke stroke) => Pots(Launch(stroke), 0);

    /// <summary>Whether a cue ball with this launch pots the ball.</summary>
    /// <param name="jitterSeed">How balls that touch are laid anew; 0: as they lie.</param>
    /// <param name="rebounds">By how much cushions are off.</param>
    public bool Pots(in BallMotion launch, int jitterSeed, in ReboundError rebounds = default)
    {
        Play(launch, _isDecided, jitterSeed, rebounds);
        return _simulator.PocketOf(_target) == _cut.Pocket;
    }

    /// <summary>
    /// Whether a stroke brings the ball to its pocket, or past it: it does not stop on its last leg, nor the white before it.
    /// </summary>
    public bool GetsThere(in Stroke stroke) => GetsThere(Launch(stroke));

    /// <summary>Whether the ball gets to the pocket from a cue ball with this launch.</summary>
    public bool GetsThere(in BallMotion launch)
    {
        Play(launch, _cut.Kind == PotKind.Direct ? _isSent : _isDecided);
        return Way() is { End: not ShotEventKind.Stop };
    }

    /// <summary>How far a direct pot's ball runs, m, if it stops before it meets anything; else null.</summary>
    public double? StopsAfter(in Stroke stroke)
    {
        Play(Launch(stroke), _isSent);
        return Way() is { End: ShotEventKind.Stop } way ? way.Leg.Length : null;
    }

    /// <summary>
    /// Whether a stroke pots the ball as it is meant: a direct pot not off a cushion elsewhere, though it may rub one at the pocket; a
    /// double off its own cushion and no other.
    /// </summary>
    public bool PotsAsMeant(in Stroke stroke)
    {
        Play(Launch(stroke), _cut.Kind == PotKind.Direct && !_cut.IsAlongCushion ? _isDecidedAsMeant : _isDecided);
        if (_simulator.PocketOf(_target) != _cut.Pocket)
            return false;
        if (_cut.Kind is not (PotKind.Direct or PotKind.Double))
            return true;
        var met = 0;
        foreach (var e in Record.Events)
        {
            if (!IsElsewhere(e))
                continue;
            met++;
            if (e.Kind == ShotEventKind.Jaw || Cushions.Nearest(e.At) != _cut.Pot.Off)
                return _cut.IsAlongCushion;
        }
        return met == (_cut.Kind == PotKind.Double ? 1 : 0);
    }

    /// <summary>Whether the object ball meets a cushion away from its pocket.</summary>
    private bool IsElsewhere(in ShotEvent e) =>
        e.Ball == _target
        && e.Kind is (ShotEventKind.Cushion or ShotEventKind.Jaw)
        && !IsWhereItLay(e)
        && e.At.DistanceTo(_pocket.Drop.Centre) > AtPocket;

    /// <summary>So near to the drop's centre a cushion belongs to the pocket, m.</summary>
    internal const double AtPocket = 0.25;

    /// <summary>
    /// How far the object ball's way to the pocket lies to the left of the one that is meant, degrees, told at the ball that is struck:
    /// after a second contact or a cushion the other way round. Null if it does not come that way.
    /// </summary>
    public double? Miss(in Stroke stroke)
    {
        // Of a direct pot nothing counts after the object ball's first leg.
        Play(Launch(stroke), _cut.Kind == PotKind.Direct ? _isSent : null);
        if (Way()?.Leg is not { } way)
            return null;
        var meant = _cut.Pot.Off is null ? _cut.FinalDegrees : Cut.Opening(way.From, _pocket).Direction.Degrees;
        return _cut.CutSign * Math.IEEERemainder(way.Direction.Degrees - meant, 360);
    }

    private BallMotion Launch(in Stroke stroke) => stroke.ToStrike().Launch(Conditions);

    private void Play(in BallMotion launch, Func<bool>? until, int jitterSeed = 0, in ReboundError rebounds = default)
    {
        if (jitterSeed == 0 || _touching == 0)
            _simulator.Place(_balls);
        else
        {
            _balls.CopyTo(_jittered);
            Jitter.Apply(_jittered, _touching, jitterSeed);
            _simulator.Place(_jittered);
        }
        _simulator.ReboundError = rebounds;
        _simulator.Release([(0, launch)], Record, until);
    }

    /// <summary>Whether the object ball has been potted: where the white goes then is nothing to the pot.</summary>
    private bool IsDecided() => Record.Events.Count > 0 && Record.Events[^1] is { Kind: ShotEventKind.Pot } e && e.Ball == _target;

    /// <summary>Whether the object ball has come to the end of its first leg.</summary>
    private bool IsSent() =>
        Record.Events.Count > 0
        && Record.Events[^1] is var e
        && e.Ball == _target
        && e.Kind is not (ShotEventKind.Ball or ShotEventKind.Roll or ShotEventKind.Bed)
        && !IsWhereItLay(e);

    /// <summary>A ball tight on a cushion meets it as it is struck: no way of its own lies before that.</summary>
    private bool IsWhereItLay(in ShotEvent e) => e.Kind == ShotEventKind.Cushion && e.At.DistanceTo(_balls[_target].At) < Cut.Touching;

    /// <summary>
    /// From where the ball sets out to the pocket to where it first meets anything, is potted or stops; and which of these.
    /// </summary>
    private (Segment Leg, ShotEventKind End)? Way()
    {
        var (struck, sent) = (false, false);
        var from = _balls[_target].At;
        foreach (var e in Record.Events)
        {
            if (e.Kind is ShotEventKind.Strike or ShotEventKind.Roll or ShotEventKind.Bed)
                continue;
            if (!struck)
            {
                if (e.Kind == ShotEventKind.Stop || e.Ball != 0 || e.Other != 1)
                    return null;
                struck = true;
                sent = _target == 1 && _cut.Pot.Off is null;
            }
            else if (sent)
            {
                if (e.Ball == _target && !IsWhereItLay(e))
                    return (new(from, e.At), e.Kind);
            }
            else if (_target == 2)
            {
                // Of a plant: the ball between must come to the other by itself.
                if (e.Kind == ShotEventKind.Ball && e.Ball + e.Other == 3)
                    sent = true;
                else if (e.Ball == 1)
                    return null;
            }
            else if (e.Ball == 1)
            {
                if (e.Kind != ShotEventKind.Cushion || Cushions.Nearest(e.At) != _cut.Pot.Off)
                    return null;
                (sent, from) = (true, e.At);
            }
        }
        return null;
    }
}
