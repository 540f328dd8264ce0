namespace Rendal.Core.Customers;

/// <summary>Which customer is the head office of which.</summary>
/// <param name="headOfficeOf">The head office of each customer that has one, by key.</param>
public sealed class HeadOffices(IReadOnlyDictionary<string, string> headOfficeOf)
{
    /// <summary>Who is whose head office, as the cards say. A head office that has no card of its own counts all the same.</summary>
    public static HeadOffices Of(IEnumerable<Customer> customers) =>
        new(customers.Where(c => c.HeadOffice.Length > 0).ToDictionary(c => c.Key, c => c.HeadOffice, StringComparer.Ordinal));

    /// <summary>
    /// The customer at the top of a chain of any depth; the customer itself where it has no head office. Null for a customer whose chain
    /// runs into a loop.
    /// </summary>
    public string? TopOf(string key)
    {
        if (!headOfficeOf.TryGetValue(key, out var first) || first.Length == 0)
        {
            return key;
        }

        var seen = new HashSet<string>(StringComparer.Ordinal);
        var now = key;
        while (seen.Add(now))
        {
            if (!headOfficeOf.TryGetValue(now, out var next) || next.Length == 0)
            {
                return now;
            }

            now = next;
        }

        return null;
    }

    /// <summary>
    /// The loops, each once, as the keys along it from the first in ordinal order on: <c>A</c>, <c>B</c>, <c>C</c> for A under B, B under
    /// C, C under A.
    /// </summary>
    public IReadOnlyList<IReadOnlyList<string>> Loops()
    {
        var done = new HashSet<string>(StringComparer.Ordinal);
        var loops = new List<IReadOnlyList<string>>();
        foreach (var start in headOfficeOf.Keys.Order(StringComparer.Ordinal))
        {
            var path = new List<string>();
            var now = start;
            while (done.Add(now))
            {
                path.Add(now);
                if (!headOfficeOf.TryGetValue(now, out var next) || next.Length == 0)
                {
                    break;
                }

                now = next;
            }

            var at = path.IndexOf(now);
            if (at >= 0 && headOfficeOf.TryGetValue(path[^1], out var last) && last == now)
            {
                var loop = path[at..];
                var first = loop.IndexOf(loop.Min(StringComparer.Ordinal)!);
                loops.Add([.. loop[first..], .. loop[..first]]);
            }
        }

        return loops;
    }
}
