-- As with the columns that say which round: of a book that is in no statistics the server expects one parcel, takes any index that begins with
-- the book for as good as the key, and goes through 50,000 parcels for each that is looked for by its number.
alter table parcel alter column book_id set statistics 0, alter column book_id type bigint;
