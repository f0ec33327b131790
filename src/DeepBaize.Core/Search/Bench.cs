using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Search;

/// <summary>What one worker needs to play strokes and to judge where they leave the table.</summary>
public sealed class Bench(SearchContext context)
{
    private const int LinesKept = 8;
    private readonly List<PotLines> _lines = [];
    private Layout? _playedFrom;
    private PotLines? _base;

    public Simulator Simulator { get; } = new(context.Shape);
    public ShotRecord Record { get; } = new();

    /// <summary>
    /// The ways of the balls of a layout: kept, for most strokes move no ball but the two that are meant, and worked out from those of the
    /// table that is played from, where most balls lie as in it.
    /// </summary>
    public PotLines LinesOf(Layout layout)
    {
        for (var i = _lines.Count - 1; i >= 0; i--)
            if (_lines[i].IsOf(layout))
                return _lines[i];
        if (_playedFrom is { } from && _base?.IsOf(from) != true)
            _base = new(from, context.Shape, _base);
        if (_base?.IsOf(layout) == true)
            return _base;
        var lines = new PotLines(layout, context.Shape, _base);
        if (_lines.Count == LinesKept)
            _lines.RemoveAt(0);
        _lines.Add(lines);
        return lines;
    }

    /// <summary>Plays a stroke with an error, and rules on it.</summary>
    public Played Play(Situation from, in Stroke stroke, in StrokeError error, Ball? nominated)
    {
        context.Cancel.ThrowIfCancellationRequested();
        context.Count();
        _playedFrom = from.Layout;
        error.Play(Simulator, from.Layout, stroke, Record);
        return from.Play(Simulator, Record, nominated, context.Shape);
    }

    /// <summary>How a player's stroke from a layout scatters.</summary>
    /// <param name="skill">At its reach.</param>
    public Scatter ScatterOf(Layout layout, in Stroke stroke, Skill skill) => Scatter.Of(layout, stroke, skill, Simulator, Record);

    /// <summary>The same with what its reach makes of the player's own skill.</summary>
    public Scatter ScatterOf(Layout layout, in Stroke stroke) =>
        ScatterOf(layout, stroke, context.Player.Skill.Times(Reach.Of(layout, stroke, context.Player).ErrorFactor));

    public Quality Judge(Situation situation) => context.Worth.Of(situation, LinesOf(situation.Layout));
}
