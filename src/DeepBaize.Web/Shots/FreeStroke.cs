using DeepBaize.Core.Strokes;
using DeepBaize.Data.Positions;

namespace DeepBaize.Web.Shots;

/// <summary>A stroke that is aimed freely, for there is no pot to aim by.</summary>
internal static class FreeStroke
{
    public static StrokeEntry Of(in Stroke s) =>
        new()
        {
            Aim = Math.Round(Math.IEEERemainder(s.AimDegrees, 360), 4),
            Side = s.SideTips,
            Height = s.HeightTips,
            Pace = Math.Round(s.Pace, 3),
            Elevation = s.ElevationDegrees,
            Free = true,
        };
}
