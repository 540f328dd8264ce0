-- The last attempt of a parcel is asked for with every parcel that is shown or made: by its number the server went through all attempts of
-- the book, newest first, whenever it had no statistics yet.
drop index delivery_attempt_parcel;
create index delivery_attempt_parcel on delivery_attempt (book_id, parcel_id, id);
