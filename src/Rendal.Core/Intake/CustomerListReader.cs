using System.Collections.Frozen;
using System.Globalization;
using Rendal.Core.Customers;
using Rendal.Core.Ledger;
using Rendal.Core.Wordings;

namespace Rendal.Core.Intake;

/// <summary>Reads a list of customers: one row each, with a code or a name.</summary>
public static class CustomerListReader
{
    private static readonly FrozenDictionary<string, Field> Fields = new (Field Field, string Words)[]
    {
        (Field.Contact, "contact|contact name|contact person|attention|attn|ansprechpartner|kontakt|contacto|contatto|contactpersoon"),
        (Field.Title, "title|salutation|anrede|civilite|titre|tratamiento|titolo|aanhef"),
        (Field.Address, "address|address 1|address 2|address 3|address line 1|address line 2|address line 3|street|strasse|straße|adresse|rue|direccion|calle|indirizzo|via|adres|straat"),
        (Field.Town, "town|city|ort|stadt|ville|ciudad|poblacion|citta|plaats"),
        (Field.Postcode, "postcode|post code|zip|zip code|postal code|plz|code postal|codigo postal|cap"),
        (Field.Country, "country|land|pays|pais|paese"),
        (Field.Language, "language|lang|sprache|langue|idioma|lingua|taal"),
        (Field.Terms, "terms|terms days|payment terms|days|zahlungsziel|zahlungsziel tage|delai|plazo|termini|betalingstermijn"),
        (Field.Hold, "on hold|hold|stop|blocked|gesperrt|bloque|bloqueado|bloccato|geblokkeerd"),
    }.SelectMany(list => list.Words.Split('|').Select(word => KeyValuePair.Create(HeadingWords.Plain(word), list.Field))).DistinctBy(p => p.Key).ToFrozenDictionary();

    private enum Field
    {
        None,
        Code,
        Name,
        Email,
        Contact,
        Title,
        Address,
        Town,
        Postcode,
        Country,
        Language,
        Terms,
        Hold,
    }

    /// <summary>
    /// Reads the list. The heading row is the first among the first hundred that has a heading for the code or the
    /// name and at least one more that is known. Of a code that stands twice the first row counts.
    /// </summary>
    /// <returns>The customers with their own terms in days where given; null where no heading row was found.</returns>
    public static CustomerList? Read(LedgerTable table)
    {
        Field[]? fields = null;
        var customers = new Dictionary<string, ListedCustomer>(StringComparer.Ordinal);
        var findings = new FindingList();
        foreach (var row in table.Rows)
        {
            if (fields is null)
            {
                var known = row.Cells.Select(FieldOf).ToArray();
                fields = known.Intersect([Field.Code, Field.Name]).Any() && known.Count(f => f != Field.None) > 1 ? WithCode(known) : null;
                if (fields is null && row.Number >= Recognition.RowsSearched)
                {
                    return null;
                }

                continue;
            }

            if (row.Cells.All(c => c.IsEmpty))
            {
                continue;
            }

            var customer = ReadRow(row, fields, table, findings);
            if (customer is not null && !customers.TryAdd(customer.Customer.Key, customer))
            {
                findings.Add(new Finding(FindingCodes.SameRowTwice, Severity.Warning, new SourceRef(table.File, table.Sheet, row.Number), null, customer.Customer.Key,
                    $"{customer.Customer.Key} stands in the list twice; the first row counts.", "Take one of the rows out of the list."));
            }
        }

        return fields is null ? null : new CustomerList([.. customers.Values], findings.Listed());
    }

    private static Field FieldOf(Cell heading)
    {
        if (HeadingWords.IsCodeOrName(heading.Text))
        {
            return Field.Name;
        }

        // Words of the list come first: "address" alone is the postal one here.
        return Fields.TryGetValue(HeadingWords.Plain(heading.Text), out var field) ? field : HeadingWords.Of(heading.Text)?.Meaning switch
        {
            ColumnMeaning.CustomerCode => Field.Code,
            ColumnMeaning.CustomerName => Field.Name,
            ColumnMeaning.Email => Field.Email,
            _ => Field.None,
        };
    }

    /// <summary>Where two headings are for the name, as in <c>Customer, Name</c>, the first is the code.</summary>
    private static Field[] WithCode(Field[] fields)
    {
        if (!fields.Contains(Field.Code) && fields.Count(f => f == Field.Name) > 1)
        {
            fields[Array.IndexOf(fields, Field.Name)] = Field.Code;
        }

        return fields;
    }

    private static ListedCustomer? ReadRow(FileRow row, Field[] fields, LedgerTable table, FindingList findings)
    {
        string Text(Field field) => Enumerable.Range(0, fields.Length).Where(i => fields[i] == field).Select(i => row[i].Text).FirstOrDefault(t => t.Length > 0, "");

        var source = new SourceRef(table.File, table.Sheet, row.Number);
        var name = Text(Field.Name);
        var key = Text(Field.Code) is { Length: > 0 } code ? code : name;
        if (key.Length == 0)
        {
            findings.Add(new Finding(FindingCodes.NoCustomer, Severity.Error, source, null, null, "The row has neither a customer code nor a name.", "Fill one of them in, or take the row out of the list."));
            return null;
        }

        var language = Text(Field.Language);
        int? terms = int.TryParse(Text(Field.Terms), NumberStyles.None, CultureInfo.InvariantCulture, out var days) && days <= 3650 ? days : null;
        var lines = Enumerable.Range(0, fields.Length).Where(i => fields[i] == Field.Address && !row[i].IsEmpty).Select(i => row[i].Text).ToList();
        var town = $"{Text(Field.Town)} {Text(Field.Postcode)}".Trim();
        if (town.Length > 0)
        {
            lines.Add(town);
        }

        var email = Text(Field.Email);
        foreach (var bad in AddressList.Read(email).Bad)
        {
            findings.Add(new Finding(FindingCodes.BadAddress, Severity.Warning, source, null, key, $"“{bad}” is not an e-mail address.", "Correct it; until then nothing can be sent there."));
        }

        return new ListedCustomer(
            new Customer
            {
                Key = key,
                Name = name.Length > 0 ? name : key,
                Contact = Text(Field.Contact),
                Title = Text(Field.Title),
                PostalLines = lines,
                Country = Text(Field.Country),
                Email = email,
                Language = Language.TryParse(language, out var known) ? known.Code : "en",
                OnHold = HeadingWords.Plain(Text(Field.Hold)) is not ("" or "no" or "n" or "0" or "false" or "nein" or "non" or "nee"),
            },
            terms);
    }
}

/// <summary>A customer of a list with its own terms.</summary>
/// <param name="Customer">The customer.</param>
/// <param name="TermsDays">Days net; null where the list does not say.</param>
public sealed record ListedCustomer(Customer Customer, int? TermsDays);

/// <summary>A customer list as read.</summary>
/// <param name="Customers">The customers in the order of the list, each once.</param>
/// <param name="Findings">What was noticed.</param>
public sealed record CustomerList(IReadOnlyList<ListedCustomer> Customers, IReadOnlyList<Finding> Findings);
