using DeepBaize.Core;
using DeepBaize.Core.Advice.Compare;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Positions;

namespace DeepBaize.Web.Drawing;

/// <summary>A stroke on the sheet of a comparison.</summary>
public sealed record SheetColumn
{
    /// <summary>A letter, or the advice.</summary>
    public required string Name { get; init; }

    /// <summary>What is played, in words.</summary>
    public required string Stroke { get; init; }

    /// <summary>The white's way, m.</summary>
    public required IReadOnlyList<TracePoint> Line { get; init; }
}

/// <summary>A line of the table: a figure of each stroke, in words.</summary>
public sealed record SheetRow
{
    public required string Label { get; init; }
    public required IReadOnlyList<string> Cells { get; init; }
}

/// <summary>What goes on the sheet of a comparison.</summary>
public sealed record CompareSheetRequest
{
    public required string Name { get; init; }
    public required PositionContent Content { get; init; }
    public required IReadOnlyList<SheetColumn> Columns { get; init; }
    public IReadOnlyList<SheetRow> Rows { get; init; } = [];

    /// <summary>Which is better, and why.</summary>
    public IReadOnlyList<string> Lines { get; init; } = [];
}

/// <summary>Strokes side by side on a sheet of A4: their lines on one plan, their figures in a table, the verdict.</summary>
public static class CompareSheet
{
    public const double Width = 210,
        Height = 297;
    private const int MostRows = 14,
        MostLines = 6,
        MostTraces = 24,
        MostPoints = 2000,
        MostText = 300;
    private const double Margin = 12;
    private const string Ink = "#1c2624",
        Soft = "#5a6661",
        Rule = "#c9c2ad";

    /// <exception cref="InputException">A position that cannot be, too many strokes or too much text.</exception>
    public static void Draw(ICanvas canvas, CompareSheetRequest sheet)
    {
        var content = CheckedContent.Of(sheet.Content);
        var checks = new Checks();
        checks.Range("columns.length", sheet.Columns.Count, Comparer.Fewest, Comparer.Most + 1);
        checks.Range("rows.length", sheet.Rows.Count, 0, MostRows);
        checks.Range("lines.length", sheet.Lines.Count, 0, MostLines);
        checks.That(
            sheet.Rows.All(r => r.Cells.Count == sheet.Columns.Count),
            "rows",
            "A row has another number of cells than there are strokes.",
            "a cell for each stroke"
        );
        var texts = sheet.Lines.Append(sheet.Name).Concat(sheet.Columns.SelectMany(c => new[] { c.Name, c.Stroke }));
        checks.That(
            texts.Concat(sheet.Rows.SelectMany(r => r.Cells.Append(r.Label))).All(t => t.Length <= MostText),
            "lines",
            "A text is too long for the sheet.",
            $"at most {MostText} characters each"
        );
        checks.ThrowIfAny();

        canvas.Rectangle(0, 0, Width, Height, "#ffffff");
        canvas.Text(Margin, 18, 7, ShotCard.Fit(sheet.Name, 7, Width - 2 * Margin), Ink, bold: true);
        const double top = 24,
            plan = Width - 2 * Margin;
        var traces = Checked([.. sheet.Columns.Select(c => new Trace(c.Name, c.Line))], "columns");
        PlanDrawing.Draw(canvas, content, (Margin, top, plan), traces: traces, hasShot: false);
        var y = top + plan * PlanDrawing.Aspect + 9;
        foreach (var column in sheet.Columns)
        {
            canvas.Text(Margin, y, 4, column.Name, Ink, bold: true);
            canvas.Text(Margin + 20, y, 4, ShotCard.Fit(column.Stroke, 4, plan - 20), Ink);
            y += 6;
        }
        y += 3;
        const double label = 34;
        var step = (plan - label) / sheet.Columns.Count;
        for (var i = 0; i < sheet.Columns.Count; i++)
            canvas.Text(Margin + label + i * step, y, 3.8, sheet.Columns[i].Name, Ink, bold: true);
        foreach (var row in sheet.Rows)
        {
            canvas.Line([(Margin, y + 1.8), (Width - Margin, y + 1.8)], Rule, 0.2);
            y += 6.2;
            canvas.Text(Margin, y, 3.3, row.Label, Soft);
            for (var i = 0; i < row.Cells.Count; i++)
                canvas.Text(Margin + label + i * step, y, 3.3, ShotCard.Fit(row.Cells[i], 3.3, step - 2), Ink);
        }
        y += 10;
        foreach (var line in sheet.Lines.SelectMany(l => ShotCard.Wrap(l, 4, plan)))
        {
            canvas.Text(Margin, y, 4, line, Ink, bold: true);
            y += 5.4;
        }
        canvas.Text(Width - Margin, Height - 8, 2.6, "Deep Baize", Soft, anchor: Anchor.End);
    }

    /// <exception cref="InputException">Too many lines, or one with a place that is no place on a table.</exception>
    public static IReadOnlyList<Trace> Checked(IReadOnlyList<Trace> traces, string field)
    {
        var checks = new Checks(field);
        checks.Range("length", traces.Count, 0, MostTraces);
        foreach (var (trace, i) in traces.Select((t, i) => (t, i)))
        {
            checks.Range($"[{i}].line.length", trace.Line.Count, 0, MostPoints);
            checks.That(
                trace.Line.All(TrialChecks.IsNear),
                $"[{i}].line",
                "A line leaves the table.",
                "places within a metre of the table"
            );
            checks.That(trace.Name.Length <= MostText, $"[{i}].name", "The name is too long.", $"at most {MostText} characters");
        }
        checks.ThrowIfAny();
        return traces;
    }
}
