using System.Globalization;
using System.Linq.Expressions;
using System.Runtime.CompilerServices;
using System.Text;
using DeepBaize.Core;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Query;

namespace DeepBaize.Web.Records;

/// <summary>Texts that users write.</summary>
internal static class Texts
{
    private const string Letters = "letters, figures, signs and spaces of any language";

    /// <summary>Trimmed, and free of what PostgreSQL, a line of text or a reader's eye cannot hold.</summary>
    /// <exception cref="InputException">
    /// Empty or invisible where it is required, too long, or with a character that controls something instead of being seen.
    /// </exception>
    public static string Checked(string field, string? text, int most, bool required)
    {
        var trimmed = (text ?? "").Trim();
        var checks = new Checks();
        checks.That(!required || trimmed.EnumerateRunes().Any(IsSeen), field, $"The {field} is empty.", $"1 to {most} characters");
        checks.That(trimmed.Length <= most, field, $"The {field} is {trimmed.Length} characters long.", $"at most {most} characters");
        checks.That(
            !trimmed.Any(c => char.IsControl(c) && c is not ('\n' or '\t')),
            field,
            $"The {field} holds a control character.",
            Letters
        );
        // They make a text read as something else than it is (Unicode Technical Report 36, "Bidirectional Text Spoofing").
        checks.That(!trimmed.Any(TurnsDirection), field, $"The {field} holds a mark that turns the direction of writing.", Letters);
        // A replacement for what is no character: half a pair of surrogates.
        checks.That(!trimmed.EnumerateRunes().Contains(Rune.ReplacementChar), field, $"The {field} holds a broken character.", Letters);
        checks.ThrowIfAny();
        return trimmed;
    }

    private static bool TurnsDirection(char c) =>
        c is '\u061C' or '\u200E' or '\u200F' or (>= '\u202A' and <= '\u202E') or (>= '\u2066' and <= '\u2069');

    /// <summary>Whether there is something to see: marks without a letter, fillers and blanks are not.</summary>
    private static bool IsSeen(Rune rune) =>
        rune.Value is not (0x115F or 0x1160 or 0x2800 or 0x3164 or 0xFFA0)
        && Rune.GetUnicodeCategory(rune)
            is not (
                UnicodeCategory.Control
                or UnicodeCategory.Format
                or UnicodeCategory.SpaceSeparator
                or UnicodeCategory.LineSeparator
                or UnicodeCategory.ParagraphSeparator
                or UnicodeCategory.NonSpacingMark
                or UnicodeCategory.EnclosingMark
                or UnicodeCategory.OtherNotAssigned
                or UnicodeCategory.PrivateUse
                or UnicodeCategory.Surrogate
            );

    /// <summary>Those in whose text each of the words that are searched for is found.</summary>
    /// <param name="text">Of a row: what is searched in; several columns with a space between.</param>
    public static IQueryable<T> Having<T>(this IQueryable<T> query, string search, Expression<Func<T, string>> text)
    {
        foreach (var pattern in Patterns(search))
        {
            // A field, and not a constant: the database then keeps one plan for all searches.
            var field = Expression.Field(Expression.Constant(new StrongBox<string>(pattern)), nameof(StrongBox<>.Value));
            Expression<Func<string, string, bool>> like = (within, sought) => EF.Functions.ILike(within, sought, "\\");
            var body = new ReplacingExpressionVisitor(like.Parameters, [text.Body, field]).Visit(like.Body);
            query = query.Where(Expression.Lambda<Func<T, bool>>(body, text.Parameters));
        }
        return query;
    }

    /// <summary>For ILIKE with a backslash to escape: one for each word that is searched for.</summary>
    private static IEnumerable<string> Patterns(string search) =>
        Checked("search", search, 200, required: false)
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Take(8)
            .Select(word => $"%{word.Replace("\\", "\\\\").Replace("%", "\\%").Replace("_", "\\_")}%");
}
