using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Search;

/// <summary>What one worker needs to play strokes and evaluate the tables that they leave. Not thread-safe.</summary>
public sealed class Workspace(SearchContext context)
{
    private const int LinesKept = 8;
    private readonly List<PotLines> _lines = [];
    private Layout? _playedFrom;
    private PotLines? _base;
    private Simulator? _coarse;

    /// <summary>The simulator, with the last stroke in it.</summary>
    public Simulator Simulator { get; } = new(context.Shape);

    /// <summary>A simulator that neglects what a drawing does not show: quicker, for long searches over one pot.</summary>
    public Simulator Coarse => _coarse ??= new(context.Shape, Simulator.Coarse);

    /// <summary>The player who asks.</summary>
    public Player Player => context.Player;

    /// <summary>The record of the last stroke.</summary>
    public ShotRecord Record { get; } = new();

    /// <summary>
    /// Returns the pot lines of a layout. Cached, because most strokes move only the white and the potted ball, and derived from the lines
    /// of the table that is played from, where most balls lie in the same places.
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

    /// <summary>Plays a stroke with an error and rules on it.</summary>
    public PlayedStroke Play(Situation from, in Stroke stroke, in StrokeError error, Ball? nominated)
    {
        context.Cancel.ThrowIfCancellationRequested();
        context.Count();
        _playedFrom = from.Layout;
        error.Play(Simulator, from.Layout, stroke, Record);
        return from.Play(Simulator, Record, nominated, context.Shape);
    }

    /// <summary>Returns the scatter of a stroke from a layout.</summary>
    /// <param name="skill">The player's skill, with the error factor of the reach.</param>
    /// <param name="pot">The pot that is meant, if any.</param>
    public Scatter ScatterOf(Layout layout, in Stroke stroke, Skill skill, Pot? pot = null) =>
        Scatter.Of(layout, stroke, skill, Simulator, Record, pot);

    /// <summary>Returns the scatter of the player's own stroke, its reach taken into account.</summary>
    public Scatter ScatterOf(Layout layout, in Stroke stroke) =>
        ScatterOf(layout, stroke, context.Player.Skill.Times(Reach.Of(layout, stroke, context.Player).ErrorFactor));

    /// <summary>Judges a table for whoever is at it.</summary>
    public Outlook Judge(Situation situation) => context.Judge.QuickOf(situation, LinesOf(situation.Layout));

    /// <summary>Value of a table, in the measure of the answer.</summary>
    public double ValueOf(Situation situation) => ValueOf(situation, out _);

    /// <summary>Value of a table, in the measure of the answer, with the outlook that it stands on.</summary>
    public double ValueOf(Situation situation, out Outlook outlook)
    {
        outlook = situation.Frame.IsOver || situation.Frame.AwaitsLot ? Outlook.Nothing : Judge(situation);
        return context.Objective.Of(situation.Frame, outlook);
    }

    /// <summary>Value of a table whose player turns to safety, in the measure of the answer.</summary>
    public double SafetyValueOf(Situation situation) =>
        context.Objective.Of(situation.Frame, Judge(situation) with { Best = Quality.None });
}
