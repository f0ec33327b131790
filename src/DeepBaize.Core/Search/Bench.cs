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

    public Simulator Simulator { get; } = new(context.Shape);
    public ShotRecord Record { get; } = new();

    /// <summary>The ways of the balls of a layout: kept, for most strokes move no ball but the two that are meant.</summary>
    public PotLines LinesOf(Layout layout)
    {
        for (var i = _lines.Count - 1; i >= 0; i--)
            if (_lines[i].IsOf(layout))
                return _lines[i];
        var lines = new PotLines(layout, context.Shape, _lines.Count == 0 ? null : _lines[0]);
        // The oldest stays: it is the table that is played from, and most balls of the others lie as in it.
        if (_lines.Count == LinesKept)
            _lines.RemoveAt(1);
        _lines.Add(lines);
        return lines;
    }

    /// <summary>Plays a stroke with an error, and rules on it.</summary>
    public Played Play(Situation from, in Stroke stroke, in StrokeError error, Ball? nominated)
    {
        context.Cancel.ThrowIfCancellationRequested();
        context.Count();
        error.Play(Simulator, from.Layout, stroke, Record);
        return from.Play(Simulator, Record, nominated, context.Shape);
    }

    public Quality Judge(Situation situation) => context.Worth.Of(situation, LinesOf(situation.Layout));
}
