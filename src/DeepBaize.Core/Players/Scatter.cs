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
    /// <summary>Lower bound on the standard deviation of cue speed, m/s.</summary>
    private const double SteadiestSpeed = 0.02;

    private readonly SharedFactor _sharedFactor;
    private readonly Strike _meant;

    private readonly int _cushions;
    private readonly bool _isDouble;
    private readonly int _mirror;

    /// <param name="stroke">As it is meant.</param>
    /// <param name="line">Line of aim of the stroke.</param>
    /// <param name="skill">At its reach.</param>
    /// <param name="isDouble">Whether the ball that is struck is to be potted off a cushion.</param>
    /// <param name="mirror">As <see cref="Layout.Mirror"/>: −1 turns every error to the other side.</param>
    public Scatter(in Stroke stroke, in AimLine line, Skill skill, bool isDouble = false, int mirror = 1)
    {
        skill = skill.Times(Skill.GrowthAt(stroke.Pace));
        _meant = stroke.ToStrike();
        _sharedFactor = SharedFactor.Of(skill.Evenness);
        (_cushions, _isDouble, _mirror) = (line.Cushions, isDouble, mirror);
        DirectionDegrees = skill.DirectionDegrees;
        SightingDegrees = double.IsPositiveInfinity(line.Distance)
            ? 0
            : Math.Atan(skill.SightingAt(line.CutDegrees, line.Distance) / line.Distance) * 180 / Math.PI;
        AllowanceDegrees = skill.AllowancePercent / 100 * Math.Abs(line.AllowedDegrees);
        Pace = Math.Max(skill.PacePercent / 100, _meant.CueSpeed > 0 ? SteadiestSpeed / _meant.CueSpeed : 0);
        (Height, Side) = (skill.HeightError, skill.SideError);
        CushionDegrees = skill.CushionDegrees;
    }

    /// <summary>Of a stroke from a layout; the simulator and the record are used up.</summary>
    /// <param name="pot">The pot that is meant, if any: a double asks for more.</param>
    public static Scatter Of(Layout layout, in Stroke stroke, Skill skill, Simulator simulator, ShotRecord record, Pot? pot = null) =>
        new(stroke, AimLine.Of(layout, stroke, simulator, record), skill, pot?.Off is not null, layout.Mirror);

    /// <summary>Returns the scatter of a stroke, using a simulator of its own.</summary>
    public static Scatter Of(Layout layout, in Stroke stroke, Skill skill, TableShape shape, Pot? pot = null) =>
        Of(layout, stroke, skill, new Simulator(shape, Simulator.Coarse), new(), pot);

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

    /// <summary>Of the contact's height, as a fraction of the ball's radius.</summary>
    public double Height { get; }

    /// <summary>Of the contact's side, as a fraction of the ball's radius.</summary>
    public double Side { get; }

    /// <summary>Of the white off each cushion that it must meet before its work is done; a double comes off by twice that.</summary>
    public double CushionDegrees { get; }

    /// <summary>The error of one stroke.</summary>
    public StrokeError Error(in StandardDraws draws)
    {
        var factor = _sharedFactor.Factor(draws.FactorQuantile);
        var turn = draws.Direction * DirectionDegrees + draws.Sighting * SightingDegrees + draws.Allowance * AllowanceDegrees;
        var error = new StrokeError(
            _mirror * factor * turn,
            factor * draws.Pace * Pace,
            _mirror * factor * draws.Side * Side,
            factor * draws.Height * Height,
            _mirror * draws.Seed
        )
        {
            Rebounds = new(
                _mirror * draws.Seed,
                factor * CushionDegrees,
                _cushions,
                _isDouble ? factor * Skill.DoubleFactor * CushionDegrees : 0
            ),
        };
        return error.At(_meant, draws.SlipSpeed, _mirror > 0 ? draws.SlipTurn : 1 - draws.SlipTurn);
    }
}
