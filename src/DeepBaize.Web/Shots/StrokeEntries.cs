using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;

namespace DeepBaize.Web.Shots;

/// <summary>Strokes as they stand on the wire.</summary>
internal static class StrokeEntries
{
    /// <summary>Returns a stroke that pots a ball.</summary>
    /// <param name="layout">To which the pot's slots belong.</param>
    public static StrokeEntry Of(in Stroke stroke, Pot pot, Layout layout)
    {
        string? Id(int slot) => slot < 0 ? null : layout.Balls[slot].Ball.Id;
        return new()
        {
            Aim = stroke.AimDegrees,
            Side = Math.Round(stroke.SideTips, 3),
            Height = Math.Round(stroke.HeightTips, 3),
            Pace = Math.Round(stroke.Pace, 3),
            Elevation = stroke.ElevationDegrees,
            Pot = new()
            {
                Ball = Id(pot.Slot)!,
                Pocket = pot.Pocket.Name(),
                Part = pot.Part,
                Through = Id(pot.Through),
                Off = pot.Off?.Name(),
            },
        };
    }

    /// <summary>Returns a stroke that is aimed freely, for there is no pot to aim by.</summary>
    public static StrokeEntry Free(in Stroke s) =>
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
