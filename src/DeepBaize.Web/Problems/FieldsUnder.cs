using DeepBaize.Core;

namespace DeepBaize.Web.Problems;

/// <summary>Faults of a part that was checked by itself, told by where the part stands in the request.</summary>
internal static class FieldsUnder
{
    /// <summary>Runs a check; faults whose field begins with <paramref name="part"/> are told under <paramref name="field"/>.</summary>
    public static T Of<T>(string part, string field, Func<T> check)
    {
        try
        {
            return check();
        }
        catch (InputException e)
        {
            throw new InputException([
                .. e.Errors.Select(error =>
                    error.Field.StartsWith(part, StringComparison.Ordinal)
                        ? error with
                        {
                            Field = field + error.Field[part.Length..],
                        }
                        : error
                ),
            ]);
        }
    }
}
