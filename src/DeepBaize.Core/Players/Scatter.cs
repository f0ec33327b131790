using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Players;

/// <summary>
/// How one player's strokes scatter about one that is meant: standard deviations of the parts of its error, reach and power in them.
/// The one place where errors are made. docs/model.md, "How people miss".
/// </summary>
public sealed class Scatter
{
    /// <summary>No swing is steadier than this, m/s.</summary>
    private const double SteadiestSpeed = 0.02;

    private readonly SharedFactor _sharedFactor;
    private readonly Strike _meant;

    /// <param name="stroke">As it is meant.</param>
    /// <param name="line">Of that stroke.</param>
    /// <param name="skill">At its reach.</param>
    public Scatter(in Stroke stroke, in AimLine line, Skill skill)
    {
        skill = skill.Times(Skill.GrowthAt(stroke.Pace));
        _meant = stroke.ToStrike();
        _sharedFactor = SharedFactor.Of(skill.Evenness);
        DirectionDegrees = skill.DirectionDegrees;
        SightingDegrees = Math.Atan(skill.SightingAt(line.CutDegrees) / line.Distance) * 180 / Math.PI;
        AllowanceDegrees = skill.AllowancePercent / 100 * Math.Abs(line.AllowedDegrees);
        Pace = Math.Max(skill.PacePercent / 100, _meant.CueSpeed > 0 ? SteadiestSpeed / _meant.CueSpeed : 0);
        Tip = skill.TipError;
    }

    /// <summary>Of a stroke from a layout; the simulator and the record are used up.</summary>
    public static Scatter Of(Layout layout, in Stroke stroke, Skill skill, Simulator simulator, ShotRecord record) =>
        new(stroke, AimLine.Of(layout, stroke, simulator, record), skill);

    /// <summary>Returns the scatter of a stroke, using a simulator of its own.</summary>
    public static Scatter Of(Layout layout, in Stroke stroke, Skill skill, TableShape shape) =>
        Of(layout, stroke, skill, new Simulator(shape, Simulator.Coarse), new());

    /// <summary>Of the direction in which the cue ball leaves, of the contact point that is aimed at, and of what is allowed for.</summary>
    public double DirectionDegrees { get; }

    /// <inheritdoc cref="DirectionDegrees"/>
    public double SightingDegrees { get; }

    /// <inheritdoc cref="DirectionDegrees"/>
    public double AllowanceDegrees { get; }

    /// <summary>The three together.</summary>
    public double TurnDegrees =>
        Math.Sqrt(DirectionDegrees * DirectionDegrees + SightingDegrees * SightingDegrees + AllowanceDegrees * AllowanceDegrees);

    /// <summary>Share of the cue's speed.</summary>
    public double Pace { get; }

    /// <summary>Of the contact's side and height, as a fraction of the ball's radius.</summary>
    public double Tip { get; }

    /// <summary>The error of one stroke.</summary>
    public StrokeError Error(in StandardDraws draws)
    {
        var factor = _sharedFactor.Factor(draws.FactorQuantile);
        var turn = draws.Direction * DirectionDegrees + draws.Sighting * SightingDegrees + draws.Allowance * AllowanceDegrees;
        var error = new StrokeError(
            factor * turn,
            factor * draws.Pace * Pace,
            factor * draws.Side * Tip,
            factor * draws.Height * Tip,
            draws.JitterSeed
        );
        return error.At(_meant, draws.SlipSpeed, draws.SlipTurn);
    }
}
