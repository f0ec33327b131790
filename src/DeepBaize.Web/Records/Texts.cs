using DeepBaize.Core;

namespace DeepBaize.Web.Records;

/// <summary>Texts that users write.</summary>
internal static class Texts
{
    /// <summary>Trimmed, and free of what PostgreSQL or a line of text cannot hold.</summary>
    /// <exception cref="InputException">Empty where it is required, too long, or with a control character.</exception>
    public static string Checked(string field, string? text, int most, bool required)
    {
        var trimmed = (text ?? "").Trim();
        var checks = new Checks();
        checks.That(!required || trimmed.Length > 0, field, $"The {field} is empty.", $"1 to {most} characters");
        checks.That(trimmed.Length <= most, field, $"The {field} is {trimmed.Length} characters long.", $"at most {most} characters");
        checks.That(
            !trimmed.Any(c => char.IsControl(c) && c is not ('\n' or '\t')),
            field,
            $"The {field} holds a control character.",
            "letters, figures, signs and spaces of any language"
        );
        checks.ThrowIfAny();
        return trimmed;
    }

    /// <summary>For ILIKE with a backslash to escape: one for each word that is searched for.</summary>
    public static IEnumerable<string> Patterns(string search) =>
        Checked("search", search, 200, required: false)
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Take(8)
            .Select(word => $"%{word.Replace("\\", "\\\\").Replace("%", "\\%").Replace("_", "\\_")}%");
}
