namespace DeepBaize.Core.Players;

/// <summary>How the cue lies in a stroke, seen from the side; heights above the bed, distances behind the white's centre, m.</summary>
/// <param name="AxisAtBall">Height at which the cue's axis, drawn on, passes the white's centre.</param>
/// <param name="Slope">By how much the axis rises in a metre.</param>
/// <param name="BridgeBehind">Where the bridge hand stands.</param>
/// <param name="BridgeHeight">How high the cue lies on it: its lower edge.</param>
/// <param name="NoseBehind">Where the cushion's nose crosses under the cue; null if that is farther off than the cue is long.</param>
/// <param name="RailBehind">Where the rail's top begins.</param>
/// <param name="BallsBehind">Centres of the balls that the cue passes over.</param>
public sealed record CueSide(
    double AxisAtBall,
    double Slope,
    double BridgeBehind,
    double BridgeHeight,
    double? NoseBehind,
    double? RailBehind,
    IReadOnlyList<double> BallsBehind
);
