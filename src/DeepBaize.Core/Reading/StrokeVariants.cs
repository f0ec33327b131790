using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Reading;

/// <summary>A stroke of which one knob is to be turned, and what is asked of it: a pot, and perhaps what the white is to do.</summary>
/// <param name="Stroke">The stroke as it is played.</param>
/// <param name="Cut">The pot; null if the stroke is aimed by hand at nothing that is to go in.</param>
/// <param name="KeepsAim">Whether the aim stays when another knob is turned; else it follows, so that the ball still goes.</param>
/// <param name="Butt">Whose cue lies as it must with each setting; null where the elevation is set by hand.</param>
public sealed record VariantQuestion(Layout Layout, Stroke Stroke, Cut? Cut, TableShape Shape, Goal? Goal, bool KeepsAim, Player? Butt);

/// <summary>Plays variants of one stroke: aimed anew where the aim follows from the pot. One instance serves one thread.</summary>
public sealed class StrokeVariants(VariantQuestion question)
{
    private readonly PotTrial? _pot = question.Cut is { CanBeAimed: true } cut ? new(question.Layout, cut, question.Shape) : null;
    private double? _near;

    /// <summary>The table after the last stroke.</summary>
    public Simulator After { get; } = new(question.Shape);

    /// <summary>What the last stroke did.</summary>
    public ShotRecord Record { get; } = new();

    /// <summary>Plays a stroke as it stands.</summary>
    /// <param name="until">Ends the stroke early.</param>
    public (Simulator After, ShotRecord Record) Play(in Stroke stroke, Func<bool>? until = null)
    {
        After.Place(question.Layout.AsSpan());
        After.Release([(0, stroke.ToStrike().Launch(After.Conditions))], Record, until);
        return (After, Record);
    }

    /// <summary>Slot of the ball that the stroke meets first as it is set, or −1.</summary>
    public static int FirstOf(VariantQuestion question) => Contacts.FirstSlot(new StrokeVariants(question).Play(question.Stroke).Record);

    /// <summary>The stroke with the butt as the cue lies, aimed so that the pot goes if the aim follows; null if no aim does it.</summary>
    public Stroke? AimedAnew(Stroke stroke)
    {
        stroke = WithButt(stroke);
        return question.KeepsAim || question.Cut is null ? stroke
            : AimThatPots(stroke) is { } aim ? stroke with { AimDegrees = aim }
            : null;
    }

    /// <summary>Aimed well enough to sort by, from the aim found last.</summary>
    public Stroke? RoughlyAimedAnew(Stroke stroke)
    {
        stroke = WithButt(stroke);
        if (question.KeepsAim || question.Cut is not { } cut)
            return stroke;
        _near = _pot is null ? null : PotAim.Find(_pot, cut, stroke, _near ?? stroke.AimDegrees, PotAim.Roughly);
        return _near is { } aim ? stroke with { AimDegrees = aim } : null;
    }

    /// <summary>The aim with which this stroke pots the ball, degrees; null if there is none, or no pot.</summary>
    public double? AimThatPots(in Stroke stroke) => _pot is null ? null : PotAim.Find(_pot, question.Cut!.Value, stroke);

    /// <summary>As the page does: over what is in the way on the line of the cut.</summary>
    private Stroke WithButt(in Stroke stroke)
    {
        if (question.Butt is not { } player)
            return stroke;
        var line = question.KeepsAim || question.Cut is not { } cut ? stroke : stroke with { AimDegrees = cut.AimDegrees };
        return stroke with { ElevationDegrees = Reach.ButtFor(question.Layout, line, player) };
    }
}
