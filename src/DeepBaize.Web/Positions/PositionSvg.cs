using DeepBaize.Web.Drawing;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Web.Positions;

/// <summary>A position as a drawing, in the table's own millimetres, with its name and the line about it below.</summary>
public static class PositionSvg
{
    private const double Caption = 150;

    /// <exception cref="DeepBaize.Core.InputException">The position cannot be.</exception>
    public static string Draw(PositionDraft draft)
    {
        var (width, height) = ((Length + 2 * PlanDrawing.Border) * 1000, (Width + 2 * PlanDrawing.Border) * 1000);
        var canvas = new SvgCanvas(width, height + Caption, draft.Name, draft.About, printed: 0.1);
        PlanDrawing.Draw(canvas, CheckedContent.Of(draft.Content), (0, 0, width));
        canvas.Text(0, height + 70, 60, draft.Name, "#1c2624", bold: true);
        canvas.Text(0, height + 130, 42, draft.About, "#4c5a56");
        return canvas.ToString();
    }
}
